// Debian's headless Chromium, as every script starts it: about a sixth lighter than the whole browser without a window.
export const CHROMIUM_PACKAGE = { 'chromium-headless-shell': 'chromium-headless-shell' };

export const CHROMIUM = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
};
