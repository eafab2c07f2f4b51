// How every script and test starts Debian's Chromium; nothing downloads a browser of its own.
import { existsSync } from 'node:fs';
import { needDebian } from './cluster.mjs';

/** The one without a window costs a quarter less of the machine. The whole one can be notified, and stands in where only it is there. */
const SHELL = { at: '/usr/lib/chromium/chromium-headless-shell', in: 'chromium-headless-shell' };
const WHOLE = { at: '/usr/bin/chromium', in: 'chromium' };
const chosen = () => process.env.CHROMIUM ?? [SHELL, WHOLE].map((b) => b.at).find((at) => existsSync(at));
/** Installs what is missing. @param whole also the one that can be notified  @throws Error with the one command to type where there is none */
export function needChromium(whole = false) {
  const missing = [SHELL, ...(whole ? [WHOLE] : [])].filter((b) => !existsSync(b.at));
  if (process.env.CHROMIUM || !missing.length) return;
  try {
    needDebian(
      missing.map((b) => b.in),
      'Chromium',
    );
  } catch (error) {
    if (!chosen()) throw error;
    console.log(error.message);
  }
}
export const launchOptions = {
  executablePath: chosen() ?? SHELL.at,
  args: [
    ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
export const wholeOptions = { ...launchOptions, executablePath: process.env.CHROMIUM ?? WHOLE.at };
