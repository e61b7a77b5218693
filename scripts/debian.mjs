// Finds what the tests need besides packages of Node: Chromium, and pianos to listen to. What is missing is installed by apt.
import { existsSync } from 'node:fs';
import { run } from './install.mjs';

/** Installs packages of Debian. */
function install(...packages) {
  console.error(`Installing ${packages.join(', ')} …`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    run(command, rest, { stdio: ['ignore', 'ignore', 2], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  };
  apt('update', '-q');
  apt('install', '-y', '-q', '--no-install-recommends', ...packages);
}

/** Programs and sounds of pianos that the hearing is tried on, each with the package that brings it. */
const PIANOS = [
  ['/usr/bin/fluidsynth', 'fluidsynth'],
  ['/usr/share/sounds/sf2/TimGM6mb.sf2', 'timgm6mb-soundfont'],
  ['/usr/share/sounds/sf3/MuseScore_General_Lite.sf3', 'musescore-general-soundfont-small'],
];

/** Sees to it that there are sampled pianos to listen to. */
export function ensurePianos() {
  const missing = () => PIANOS.filter(([path]) => !existsSync(path));
  if (missing().length > 0) install(...missing().map(([, name]) => name));
  for (const [path] of missing()) throw new Error(`${path} is missing and apt did not bring it.`);
}

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** The path of a Chromium to test with. */
export function ensureChromium() {
  const found = () => PLACES.find((p) => p && existsSync(p));
  if (!found()) install('chromium');
  const path = found();
  if (!path) throw new Error('Chromium is not installed and apt did not bring it. Set CHROMIUM to its path.');
  return path;
}
