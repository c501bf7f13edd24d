import { expect, it } from 'vitest';
import { Key } from 'selenium-webdriver';
import { atDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A term from the grade sheet to the audit, without a pointer: every step is a key. */

const { desk } = atDemo();

/** Goes to what search finds first. */
async function goTo(text: string, finds: string): Promise<void> {
  await desk.press('/');
  await desk.sees('Screens');
  await desk.press(text);
  await desk.sees(finds);
  await desk.press(Key.ENTER);
}

story('a registrar without a pointer', () => {
  it('signs in', async () => {
    await desk.open('/');
    await desk.sees('Sign-in name');
    await desk.tabTo(/^Sign-in name$/);
    await desk.press('morwenna', Key.TAB, 'low-tide', Key.ENTER);
    await desk.reads(/sections are complete for Quarter 2/);
  });

  it('skips to the content, and is told the keys of a screen', async () => {
    await desk.press('?');
    await desk.sees('search over everything');
    await desk.press(Key.ESCAPE);
    await desk.seesNot('search over everything');
  });

  it('finds a sheet by its name, posts into it, and saves', async () => {
    await goTo('tidal ecology 1', 'Tidal Ecology 1');
    await desk.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1: 0 of 20 done/);
    await desk.tabTo(/^Grade sheet$/);
    await desk.press('9', '1', Key.ENTER, '8', '4', Key.ENTER);
    await desk.reads(/2 unsaved/);
    await desk.save();
    await desk.sees('2 grades saved.');
    await desk.reads(/2 of 20 done/);
  });

  it('undoes it from the notice', async () => {
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('t').keyUp(Key.ALT).perform();
    await desk.tabTo(/^Undo$/);
    await desk.press(Key.ENTER);
    await desk.sees('Undone: ');
    await desk.reads(/0 of 20 done/);
  });

  it('and does it again from the recent changes', async () => {
    await desk.tabTo(/^Recent changes$/, true);
    await desk.press(Key.ENTER);
    await desk.sees('Your recent changes');
    await desk.tabTo(/^Undo/);
    await desk.press(Key.ENTER);
    await desk.reads(/2 of 20 done/);
    await desk.press(Key.ESCAPE);
  });

  it('audits, goes through the findings, opens the grade of one and comes back', async () => {
    await goTo('findings', 'Findings');
    await desk.reads(/has not been audited yet/);
    await desk.press('a');
    await desk.reads(/findings? blocks? the seal of Quarter 2/);
    await desk.press('j', 'j', 'k');
    await desk.press(Key.ENTER);
    await desk.reads(/^Posting Quarter grade of Quarter 2/);
    await desk.driver.navigate().back();
    await desk.reads(/the seal of Quarter 2/);
  });

  it('steps from period to period, and leaves every dialog by Esc with the focus where it was', async () => {
    await goTo('scales', 'Scales');
    await desk.reads(/is in force/);
    await desk.tabTo(/^New scale$/);
    await desk.press(Key.ENTER);
    await desk.sees('A new scale');
    await desk.press(Key.ESCAPE);
    await desk.seesNot('A new scale');
    expect(await desk.focused()).toBe('New scale');
    await desk.pressOnPage(']');
    await desk.reads(/Quarter 3/);
    await desk.press('[');
    await desk.reads(/Quarter 2/);
  });
});
