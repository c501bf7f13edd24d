import { expect, it } from 'vitest';
import { atDemo } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* Who did what, looked up and undone; and what a page is when there is nothing to show, or nobody to ask. */

const upper = '/school/1/period/4';
const { desk, place } = atDemo();

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
    await desk.sees('Undone: save the GPA settings.');
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
  ])('says so and leads on: %s', async (where, says) => {
    await desk.open(`${upper}/${where}`);
    await desk.reads(says);
    await desk.isAccessible();
    await desk.click('Go to your first page');
    await desk.reads(/sections/);
  });

  it('and a file of an older build is not found rather than a page; text is sent compressed', async () => {
    const { address } = place.wombat;
    const missing = await fetch(`${address}/assets/older-build.js`);
    expect(missing.status).toBe(404);
    const page = await (await fetch(address)).text();
    const script = await fetch(address + /\/assets\/index[^"]*\.js/.exec(page)![0]);
    expect([script.headers.get('content-encoding'), script.headers.get('cache-control')]).toEqual([
      expect.stringMatching(/gzip|br/),
      'public, max-age=31536000, immutable',
    ]);
  });
});

story('a narrow screen, as 200 % of a small one is', () => {
  it('keeps the places behind a button, steps from period to period, and its sheet can be posted', async () => {
    await desk.browser.resize({ width: 640, height: 400 });
    await desk.open(`${upper}/today`);
    await desk.click('The next period');
    await desk.reads(/Quarter 3/);
    await desk.choose('Period', 'Quarter 2');
    await desk.click('Places');
    await desk.click('Grade sheets');
    await desk.reads(/Quarter grade of Quarter 2/);
    await desk.isAccessible();
    await desk.open(`${upper}/grade-sheets/6/1`);
    await desk.click('Take back the sign-off');
    await desk.seesNot('Take back the sign-off');
    await desk.typeInCell(1, 'Posted', '84.1');
    await desk.cellHolds(1, 'Posted', '84.1');
    await desk.click('Undo last step');
    await desk.browser.resize({ width: 1280, height: 800 });
  });
});

story('a transcript on paper', () => {
  it('is the transcript and nothing else', async () => {
    await desk.open(`${upper}/students`);
    await desk.clickOn('tbody tr[aria-rowindex="2"]');
    await desk.sees('Credits attempted');
    await desk.browser.showAs('print');
    const shown = await desk.driver.executeScript(`
      const isShown = (selector) => document.querySelector(selector).getClientRects().length > 0;
      return ['[aria-label=Transcript]', 'nav', 'h1', 'header button'].map(isShown);`);
    expect(shown).toEqual([true, false, false, false]);
    await desk.browser.showAs('screen');
  });
});

story('a server that goes away', () => {
  it('is told of, with what is typed kept, until it is back', async () => {
    await desk.open(`${upper}/scales?view=gpa`);
    await desk.choose('Decimals', '1');
    const { wombat } = place;
    await wombat.end();
    await desk.click('Save the GPA settings');
    await desk.sees('The server cannot be reached.');
    await desk.picture('unreachable');
    place.wombat = await startDemo(wombat.folder, new URL(wombat.address).port);
    await desk.seesNot('The server cannot be reached.');
    await desk.click('Save the GPA settings');
    await desk.sees('The GPA settings are saved.');
  });
});

story('a place that is not for a teacher', () => {
  it('says so in words, and leads back to the sheets', async () => {
    await desk.driver.manage().deleteAllCookies();
    await desk.open('/sign-in');
    await desk.click('Harun Nance');
    await desk.reads(/Tidal Ecology 1/);
    await desk.open(`${upper}/scales`);
    await desk.reads(/This page is not for your role/);
    await desk.isAccessible();
    await desk.click('Go to your first page');
    await desk.reads(/Tidal Ecology 1/);
  });
});
