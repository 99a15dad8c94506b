/** How Debian's Chromium is started, for tests and pictures alike. */
export const LAUNCH = {
  executablePath: '/usr/bin/chromium-headless-shell',
  // What shifts the clock of the tests is too much for a browser; its pages get theirs by themselves.
  env: { ...process.env, LD_PRELOAD: '' } as Record<string, string>,
  args: [
    '--no-sandbox',
    '--log-level=3',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
