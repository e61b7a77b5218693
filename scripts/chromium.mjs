// Finds Chromium, or installs Debian's by apt.
import { existsSync } from 'node:fs';
import { run } from './install.mjs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** The path of a Chromium to test with. */
export function ensureChromium() {
  const found = () => PLACES.find((p) => p && existsSync(p));
  if (!found()) {
    console.error('Installing Chromium …');
    const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
    const apt = (...args) => {
      const [command, ...rest] = [...sudo, 'apt-get', ...args];
      run(command, rest, { stdio: ['ignore', 'ignore', 2], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
    };
    apt('update', '-q');
    apt('install', '-y', '-q', '--no-install-recommends', 'chromium');
  }
  const path = found();
  if (!path) throw new Error('Chromium is not installed and apt did not bring it. Set CHROMIUM to its path.');
  return path;
}
