import { afterAll, beforeAll, expect, it } from 'vitest';
import { openChromium } from '../scripts/chromium.mjs';
import { atDesk, story, type Desk } from './desk.js';
import { startDemoProcess, startWombat, type WombatProcess } from './wombat-process.js';

/* Who did what, looked up and undone; and what a page is when there is nothing to show, or nobody to ask. */

const upper = '/school/1/period/4';
let wombat: WombatProcess;
let browser: Awaited<ReturnType<typeof openChromium>>;
let desk: Desk;

beforeAll(async () => {
  [wombat, browser] = await Promise.all([startDemoProcess(), openChromium()]);
  desk = atDesk(browser.driver, wombat.address);
});
afterAll(async () => {
  await browser?.close();
  await wombat?.stop();
});

story('the log', () => {
  it('was checked at the start, and tells what was just saved', async () => {
    await desk.open('/');
    await desk.click('Morwenna Oake');
    await desk.reads(/178 of 185 sections/);
    await desk.open(`${upper}/scales?view=gpa`);
    await desk.choose('Decimals', '2');
    await desk.click('Save the GPA settings');
    await desk.sees('The GPA settings are saved.');
    await desk.click('Log');
    await desk.reads(/nothing was altered, removed or put in/);
    await desk.isAccessible();
    await desk.sees('save the GPA settings');
  });

  it('is narrowed to one kind of thing in the address, and an entry opens with all its facts and its undo', async () => {
    await desk.choose('Kind of thing', 'GPA settings');
    await desk.eventually(async () => /thing=gpa-settings/.test(await desk.driver.getCurrentUrl()), true);
    await desk.clickOn('tbody tr[aria-rowindex="2"]');
    await desk.sees('All changes of it');
    await desk.sees('digits');
    await desk.isAccessible();
    await desk.picture('log');
    await desk.clickOn('[aria-label^="Undo: save the GPA settings"]');
    await desk.sees('Done: undo: save the GPA settings.');
  });

  it('is checked anew on demand', async () => {
    await desk.open(`${upper}/log`);
    await desk.click('Check the chain');
    await desk.reads(/nothing was altered, removed or put in/);
  });
});

story('an address with nothing behind it', () => {
  it.each([
    ['files/999', /There is nothing at this address/],
    ['runs/999', /There is nothing at this address/],
    ['students/99999', /There is nothing at this address/],
    ['grade-sheets/99999/1', /There is nothing at this address/],
    ['nowhere', /There is nothing at this address/],
  ])('says so and leads on: %s', async (place, says) => {
    await desk.open(`${upper}/${place}`);
    await desk.reads(says);
    await desk.isAccessible();
    await desk.click('Go to your first page');
    await desk.reads(/sections/);
  });

  it('and a file of an older build is not found rather than a page; text is sent compressed', async () => {
    const missing = await fetch(`${wombat.address}/assets/older-build.js`);
    expect(missing.status).toBe(404);
    const page = await (await fetch(wombat.address)).text();
    const script = await fetch(wombat.address + /\/assets\/index[^"]*\.js/.exec(page)![0]);
    expect([script.headers.get('content-encoding'), script.headers.get('cache-control')]).toEqual([
      expect.stringMatching(/gzip|br/),
      'public, max-age=31536000, immutable',
    ]);
  });
});

story('a narrow screen, as 200 % of a small one is', () => {
  it('keeps the places behind a button, steps from period to period, and its sheet can be posted', async () => {
    await browser.resize({ width: 640, height: 400 });
    await desk.open(`${upper}/today`);
    await desk.click('The next period');
    await desk.reads(/Quarter 3/);
    await desk.choose('Period', 'Quarter 2');
    await desk.click('Places');
    await desk.click('Grade sheets');
    await desk.reads(/Quarter grade of Quarter 2/);
    await desk.isAccessible();
    await desk.open(`${upper}/grade-sheets/6/1`);
    await desk.typeInCell(1, 'Posted', '84.1');
    await desk.cellHolds(1, 'Posted', '84.1');
    await desk.click('Undo last step');
    await browser.resize({ width: 1280, height: 800 });
  });
});

story('a transcript on paper', () => {
  it('is the transcript and nothing else', async () => {
    await desk.open(`${upper}/students`);
    await desk.clickOn('tbody tr[aria-rowindex="2"]');
    await desk.sees('Credits attempted');
    await browser.showAs('print');
    const shown = await desk.driver.executeScript(`
      const isShown = (selector) => document.querySelector(selector).getClientRects().length > 0;
      return ['[aria-label=Transcript]', 'nav', 'h1', 'header button'].map(isShown);`);
    expect(shown).toEqual([true, false, false, false]);
    await browser.showAs('screen');
  });
});

story('a server that goes away', () => {
  it('is told of, with what is typed kept, until it is back', async () => {
    await desk.open(`${upper}/scales?view=gpa`);
    await desk.choose('Decimals', '1');
    await wombat.kill();
    await desk.click('Save the GPA settings');
    await desk.sees('The server cannot be reached.');
    await desk.picture('unreachable');
    wombat = await startWombat(wombat.folder, [], new URL(wombat.address).port);
    await desk.seesNot('The server cannot be reached.');
    await desk.click('Save the GPA settings');
    await desk.sees('The GPA settings are saved.');
  });
});

story('a place that is not for a teacher', () => {
  it('says so in words, and leads back to the sheets', async () => {
    const other = await openChromium();
    const teacher = atDesk(other.driver, wombat.address);
    await teacher.open('/');
    await teacher.click('Harun Nance');
    await teacher.reads(/Tidal Ecology 1/);
    await teacher.open(`${upper}/scales`);
    await teacher.reads(/This page is not for your role/);
    await teacher.isAccessible();
    await teacher.click('Go to your first page');
    await teacher.reads(/Tidal Ecology 1/);
    await other.close();
  });
});
