// Starts headless Chromium (Debian's package) the way every script and test of this project does.
import { execFileSync } from 'node:child_process';
import { chromium } from 'playwright-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--autoplay-policy=no-user-gesture-required',
];

/** Path of the browser: GUSSET_CHROMIUM, or the first `chromium` on the path. */
export function chromiumPath() {
  return process.env.GUSSET_CHROMIUM ?? execFileSync('which', ['chromium']).toString().trim();
}

export function launchBrowser(moreFlags = []) {
  return chromium.launch({ executablePath: chromiumPath(), args: [...FLAGS, ...moreFlags] });
}

/** A browser with a profile on disk: without one, its private file system lives in memory. */
export function launchProfile(folder) {
  return chromium.launchPersistentContext(folder, { executablePath: chromiumPath(), args: FLAGS });
}
