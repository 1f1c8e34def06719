// Brings a fresh clone to where it can run: Node packages, and Debian packages where this machine lets us.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const STAMP = 'node_modules/.gusset-lock';

const has = (command) => spawnSync('which', [command], { stdio: 'ignore' }).status === 0;

/**
 * Installs the Node packages when the lock file is newer than what is installed.
 * @param part `all` of them, or those that building and `serving` need; `all` serves as well.
 */
export function installNodePackages(part = 'all') {
  const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const installed = existsSync(STAMP) ? readFileSync(STAMP, 'utf8') : '';
  if (installed === `all ${lock}` || installed === `${part} ${lock}`) return;
  console.log('Installing Node packages…');
  const less = part === 'serving' ? ['--omit=dev'] : [];
  // esbuild's own install step only checks the binary that its package ships.
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--prefer-offline', ...less], {
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  writeFileSync(STAMP, `${part} ${lock}`);
}

/** Debian packages that tests and proofs need, by their commands. */
export const JUDGES = {
  chromium: 'chromium',
  'firefox-esr': 'firefox-esr',
  ffmpeg: 'ffmpeg',
  'espeak-ng': 'espeak-ng',
  mediainfo: 'mediainfo',
  'redis-server': 'redis-server',
};

/**
 * Installs Debian packages whose commands are missing.
 * @param wanted package by command. @param why what each is for, for the message.
 * @returns the commands that are still missing.
 */
export function installDebianPackages(wanted, why) {
  const missing = () => Object.keys(wanted).filter((command) => !has(command));
  if (missing().length === 0) return [];
  const packages = missing().map((command) => wanted[command]);
  if (process.getuid?.() === 0 && has('apt-get')) {
    console.log(`Installing ${packages.join(', ')} from Debian…`);
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    spawnSync('apt-get', ['update'], { stdio: 'ignore', env });
    spawnSync('apt-get', ['install', '-y', '--no-install-recommends', ...packages], { stdio: 'ignore', env });
  }
  const left = missing();
  if (left.length > 0) {
    console.log(`Missing: ${left.join(', ')}. ${why} Install the Debian packages ${packages.join(', ')}.`);
  }
  return left;
}
