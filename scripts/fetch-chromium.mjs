// Finds Chromium and its driver for the browser journeys; fetches Debian's packages when they are missing.
import { spawnSync } from 'node:child_process';
import { findChromium } from './chromium.mjs';

/** Stops with a sentence that says what to install where it cannot be fetched. */
export function fetchChromium() {
  const found = findChromium();
  if (found.browser && (found.driver || found.browser.includes('hrome.app') || found.browser.includes('google-chrome')))
    return;
  const apt = (args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  if (spawnSync('apt-get', ['--version']).error === undefined) {
    console.log('Fetching Chromium and its driver from Debian (once)…');
    apt(['update', '-qq']);
    apt(['install', '-y', '-qq', 'chromium', 'chromium-driver']);
  }
  if (findChromium().browser) return;
  console.error(
    'The browser journeys need Chromium or Chrome and its driver. Install them (on Debian: apt-get install chromium chromium-driver) and run npm test again.',
  );
  process.exit(1);
}
