/** Debian's Chromium, as tests, pictures and measurements launch it: without a sandbox, a GPU, or calls to anywhere. */
export const CHROMIUM_LAUNCH = {
  executablePath: '/usr/bin/chromium',
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
