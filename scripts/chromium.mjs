// Opens Debian's headless Chromium, or an installed Chrome, under selenium-webdriver.
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

const browsers = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
];
const drivers = ['/usr/bin/chromedriver', '/usr/lib/chromium-browser/chromedriver'];

/** Where a browser and a driver for it are, as far as they are found in the usual places. */
export function findChromium() {
  return { browser: browsers.find(existsSync), driver: drivers.find(existsSync) };
}

/**
 * A browser window of the given size with a new profile of its own.
 * @param {{ width?: number, height?: number }} [size]
 * @returns {Promise<{
 *   driver: import('selenium-webdriver').WebDriver,
 *   resize: (size: { width: number, height: number }) => Promise<void>,
 *   showAs: (media: 'print' | 'screen') => Promise<void>,
 *   giveKeyDevice: () => Promise<void>,
 *   close: () => Promise<void>,
 * }>}
 */
export async function openChromium({ width = 1280, height = 800 } = {}) {
  const { browser, driver: driverPath } = findChromium();
  const profile = mkdtempSync(join(tmpdir(), 'wombat-chromium-'));
  const options = new chrome.Options();
  if (browser) options.setChromeBinaryPath(browser);
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-dev-shm-usage',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-quic',
    '--disable-sync',
    '--no-first-run',
    '--lang=en-GB',
    '--hide-scrollbars',
    // A thing that still fades in is neither clicked rightly nor judged rightly.
    '--force-prefers-reduced-motion',
    `--user-data-dir=${profile}`,
  );
  const builder = new Builder().forBrowser('chrome').setChromeOptions(options);
  if (driverPath) builder.setChromeService(new chrome.ServiceBuilder(driverPath));
  const driver = await builder.build();
  /** @param {{ width: number, height: number }} size */
  const resize = async (size) => {
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      ...size,
      deviceScaleFactor: 1,
      mobile: false,
    });
  };
  await resize({ width, height });
  /** @param {'print' | 'screen'} media */
  const showAs = async (media) => {
    await driver.sendDevToolsCommand('Emulation.setEmulatedMedia', { media });
  };
  /** A device that keeps passkeys, with a lock that opens by itself. */
  const giveKeyDevice = async () => {
    await driver.sendDevToolsCommand('WebAuthn.enable', {});
    await driver.sendDevToolsCommand('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    });
  };
  return {
    driver,
    resize,
    showAs,
    giveKeyDevice,
    async close() {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}
