import { expect, it } from 'vitest';
import { twoAtDemo } from './at-wombat.js';
import { story, type Desk } from './desk.js';

const [teacher, registrar] = twoAtDemo();

/** The students of the sheet, without what is said of them beside their names. */
const sheetOf = async (desk: Desk) => (await desk.texts('[role=rowheader]')).map((text) => text.split('\n')[0]!);

story('a teacher and a registrar at the same sheet', () => {
  it('the teacher lands on the next sheet that is not done, and sees nothing that is not theirs', async () => {
    await teacher.open('/');
    await teacher.click('Harun Nance');
    await teacher.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1: 0 of 20 done/);
    expect(await teacher.texts('nav[aria-label=Steps] a')).toEqual(['Grade sheets\n1', 'Receipts']);
    await teacher.isAccessible();
  });

  it('pastes a block from a spreadsheet; what cannot be taken is told by name', async () => {
    const [first, second] = await sheetOf(teacher);
    await teacher.goToCell(first!, 'Posted %');
    await teacher.paste('91.5\n84\t\nhigh\n');
    await teacher.sees('1 cell could not be read.');
    await teacher.sees('“high”: A percentage is a number such as 86.4.');
    await teacher.cellHolds(first!, 'Label', 'A−');
    await teacher.cellHolds(second!, 'Label', 'B');
    await teacher.reads(/2 unsaved/);
  });

  it('leaving with unsaved marks asks, and staying loses nothing', async () => {
    await teacher.click('Grade sheets');
    await teacher.sees('3 entries not saved yet');
    await teacher.click('Stay here');
    await teacher.reads(/2 unsaved/);
  });

  it('the second to save is told what differs, loses nothing, and may keep theirs', async () => {
    const [first] = await sheetOf(teacher);
    await registrar.open('/');
    await registrar.click('Morwenna Oake');
    await registrar.reads(/sections are complete/);
    await registrar.open(new URL(await teacher.driver.getCurrentUrl()).pathname);
    await registrar.reads(/Tidal Ecology 1/);
    await registrar.typeInCell(first!, 'Posted %', '88');
    await registrar.save();
    await registrar.sees('1 grade saved.');

    await teacher.save();
    await teacher.sees('Nothing was saved; the rows show what differs.');
    await teacher.sees('Morwenna Oake saved 88.00 % B+ meanwhile.');
    await teacher.cellHolds(first!, 'Posted %', '91.5');
    await teacher.click('Keep mine over theirs');
    await teacher.save();
    await teacher.sees('2 grades saved.');
  });

  it('outside the window the sheet says so, wears another edge, and asks the registrar before posting', async () => {
    await registrar.pressOnPage(']');
    await registrar.reads(/Quarter grade of Quarter 3: 0 of/);
    await registrar.click('Open the next sheet with blanks');
    await registrar.reads(/The window of Quarter 3 is not open yet; a save posts outside it/);
    await registrar.isAccessible();
    const [first] = await sheetOf(registrar);
    await registrar.typeInCell(first!, 'Posted %', '80');
    await registrar.save();
    await registrar.sees('Post for Quarter 3 outside its window?');
    await registrar.click('Not now');
    await registrar.reads(/1 unsaved/);
  });

  it('holds in the dark as well', async () => {
    await teacher.driver.executeScript(
      `localStorage.setItem('wombat-preferences', JSON.stringify({ state: { theme: 'dark', schoolId: 1 }, version: 0 }))`,
    );
    await teacher.driver.navigate().refresh();
    await teacher.reads(/Tidal Ecology 1/);
    await teacher.isAccessible('colours');
    await registrar.driver.executeScript(
      `localStorage.setItem('wombat-preferences', JSON.stringify({ state: { theme: 'dark', schoolId: 1 }, version: 0 }))`,
    );
    for (const [place, headline] of [
      ['scales', /Letter scale/],
      ['report-items', /48 courses report 4 items/],
      ['calendar', /187 days with classes/],
      ['courses', /offers 48 courses/],
      ['set-up', /1 fault of the set-up/],
      ['scales?view=codes', /10 codes may replace/],
      ['scales?view=in-force', /1 place sets/],
      ['findings', /not been audited/],
      ['seal', /cannot be sealed/],
      ['students', /560 students/],
    ] as const) {
      await registrar.open(`/school/1/period/4/${place}`);
      await registrar.reads(headline);
      await registrar.isAccessible('colours');
    }
  });
});

story('what is typed and not saved belongs to who typed it', () => {
  let sheet: string;
  let students: string[];
  const signOut = async () => {
    await teacher.clickOn('button.rounded-full[aria-haspopup=menu]');
    await teacher.click('Sign out');
  };

  it('stays on the sheet when the session ends, and is saved once one signed in again over it', async () => {
    sheet = new URL(await teacher.driver.getCurrentUrl()).pathname;
    students = await sheetOf(teacher);
    await teacher.typeInCell(students[3]!, 'Posted %', '65');
    await teacher.driver.manage().deleteCookie('wombat');
    await teacher.save();
    await teacher.sees('Your session has ended');
    await teacher.type('Sign-in name', 'harun');
    await teacher.type('Password', 'low-tide');
    await teacher.click('Sign in');
    await teacher.seesNot('Your session has ended');
    await teacher.reads(/1 unsaved/);
    await teacher.save();
    await teacher.sees('1 grade saved.');
  });

  it('is common to two tabs, and neither erases what the other keeps', async () => {
    const first = await teacher.driver.getWindowHandle();
    await teacher.typeInCell(students[4]!, 'Posted %', '34');
    await teacher.driver.switchTo().newWindow('tab');
    await teacher.open(sheet);
    await teacher.reads(/1 unsaved/);
    await teacher.typeInCell(students[5]!, 'Posted %', '35');
    await teacher.reads(/2 unsaved/);
    await teacher.driver.switchTo().window(first);
    await teacher.reads(/2 unsaved/);
    await teacher.driver.navigate().refresh();
    await teacher.reads(/2 unsaved/);
    await teacher.cellHolds(students[5]!, 'Posted %', '35.0');
  });

  it('signing out asks, and clears the screen of every tab at once', async () => {
    await signOut();
    await teacher.sees('You have unsaved changes to 1 grade sheet');
    await teacher.isAccessible();
    await teacher.click('Keep them and sign out');
    await teacher.reads(/^Wombat$/);
    // Whichever of the tabs stays: neither leads whoever comes next to the sheet.
    const here = await teacher.driver.getWindowHandle();
    const other = (await teacher.driver.getAllWindowHandles()).find((handle) => handle !== here);
    await teacher.driver.close();
    await teacher.driver.switchTo().window(other!);
    await teacher.reads(/^Wombat$/);
  });

  it('who signs in next in the same browser neither sees nor saves it; it waits for who typed it', async () => {
    await teacher.click('Morwenna Oake');
    await teacher.reads(/sections are complete/);
    await teacher.open(sheet);
    await teacher.reads(/Tidal Ecology 1/);
    await teacher.cellHolds(students[4]!, 'Posted %', 'blank');
    expect(await teacher.headline()).not.toContain('unsaved');
    await signOut();
    await teacher.click('Harun Nance');
    await teacher.reads(/2 unsaved/);
  });
});
