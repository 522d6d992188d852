import { spawn } from 'node:child_process'

/**
 * Runs a program to its end. Resolves with its exit code and what it printed; output is also shown where `show` is set.
 * A program that cannot be started resolves with code 127.
 */
export function run(program, args, { show = false, ...options } = {}) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options })
    let output = ''
    const take = (target) => (piece) => {
      output += piece
      if (show) target.write(piece)
    }
    child.stdout.on('data', take(process.stdout))
    child.stderr.on('data', take(process.stderr))
    child.on('error', (error) => resolve({ code: 127, output: String(error) }))
    child.on('close', (code, signal) => resolve({ code: code ?? (signal ? 1 : 0), output }))
  })
}
