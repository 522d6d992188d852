/** Debian's Chromium without a window, which is lighter than the whole, as tests, pictures and measurements launch it: without a sandbox, a GPU, or calls to anywhere. */
export const CHROMIUM_LAUNCH = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}
