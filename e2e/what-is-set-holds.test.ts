import { Key } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { beforeAll, expect, it } from 'vitest';
import { signInAsRegistrar, twoAtDemo } from './at-wombat.js';
import { story, type Desk } from './desk.js';

const [desk, other] = twoAtDemo();
beforeAll(async () => {
  for (const each of [desk, other]) await signInAsRegistrar(each);
});

const upper = '/school/1/period/4';
const primary = '/school/2/period/13';

const chromium = ({ driver }: Desk) => driver as Driver;

/** Lets every answer of the server take so long. */
async function slowDown(milliseconds: number): Promise<void> {
  await chromium(desk).sendDevToolsCommand('Network.enable', {});
  await chromium(desk).sendDevToolsCommand('Network.emulateNetworkConditions', {
    offline: false,
    latency: milliseconds,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
}

story('the district says how averages are made', () => {
  it('sees on a small transcript what a setting does, and a number that cannot be read says so', async () => {
    await desk.open(`${upper}/scales?view=gpa`);
    await desk.reads(/A GPA is grade points times credits over credits/);
    await desk.isAccessible();
    await desk.sees('2.875');
    await desk.type('Honours courses', 'half');
    await desk.sees('a number from 0 with at most 2 decimals');
    await desk.canPress('Save the GPA settings', false);
    await desk.type('Honours courses', '1,5');
    await desk.sees('3.125');
  });

  it('what is typed while the save is under way stays, and is saved by the next', async () => {
    await other.open(`${upper}/scales?view=gpa`);
    await other.reads(/A GPA is/);
    await slowDown(1500);
    await desk.save();
    await desk.type('College-level courses', '2');
    await desk.sees('The GPA settings are saved.');
    await slowDown(0);
    await desk.holds('College-level courses', '2');
    await desk.canPress('Save the GPA settings');
    await desk.save();
    await desk.canPress('Save the GPA settings', false);
    await desk.holds('Honours courses', '1.5');
    await desk.driver.navigate().refresh();
    await desk.holds('Honours courses', '1.5');
    await desk.holds('College-level courses', '2');
  });

  it('a second window that was open before is told, and keeps what was typed there', async () => {
    await other.type('Regular courses', '0.1');
    await other.save();
    await other.sees('Someone else changed this first');
    await other.driver.navigate().refresh();
    await other.sees('Someone else saved the GPA settings');
    await other.holds('Regular courses', '0.1');
    await other.click('Go on from what is saved');
    await other.canPress('Save the GPA settings');
    await other.click('Discard');
    await other.holds('Honours courses', '1.5');
  });

  it('is put back by a step, and by the notice', async () => {
    await desk.choose('Decimals', '2');
    await desk.pressOnPage('u');
    await desk.reads(/at 3 decimals/);
    await desk.type('Honours courses', '0.5');
    await desk.type('College-level courses', '1');
    await desk.save();
    await desk.sees('2.875');
    await desk.canPress('Save the GPA settings', false);
  });
});

story('what was changed can be undone from any page', () => {
  it('from the recent changes, which say what each changed; and the undo as well', async () => {
    await desk.open(`${upper}/courses`);
    await desk.click('Recent changes');
    await desk.sees('Your recent changes');
    await desk.isAccessible();
    await desk.picture('recent-changes');
    await desk.clickOn('[aria-label^="Undo: save the GPA settings"]');
    await desk.pointsAt('Undone: save the GPA settings.');
    await desk.click('Undo');
    await desk.sees('Redone: save the GPA settings.');
    await desk.open(`${upper}/scales?view=gpa`);
    await desk.sees('2.875');
  });

  it('and the thing itself tells who changed it, and what', async () => {
    await desk.click('History');
    await desk.sees('History of the GPA settings');
    await desk.sees('additions, honours');
    await desk.isAccessible();
    await desk.picture('history');
  });
});

story('a scale is used at a place from a period on', () => {
  it('by keyboard alone, after a look at what it would do; earlier periods stay as they are', async () => {
    await desk.open('/school/1/period/6/scales?view=in-force');
    await desk.reads(/2 places set the scales of Upper School in Quarter 3/);
    await desk.choose('Where', 'One course');
    await desk.choose('Which', 'Shore Life');
    await desk.choose('Scale', 'Honours letters');
    await desk.press(Key.TAB, Key.TAB, Key.ENTER);
    await desk.sees('What using Honours letters there would do');
    await desk.isAccessible();
    await desk.press(Key.ESCAPE);
    await desk.seesNot('What using Honours letters there would do');
    await desk.reads(/2 places set/);
    await desk.click('Preview and use it');
    await desk.click('Use it from Quarter 3 on');
    await desk.pointsAt('Honours letters is used there from Quarter 3 on.');
    await desk.reads(/3 places set the scales/);
    await desk.pressOnPage('[');
    await desk.reads(/1 place sets the scales of Upper School in Quarter 2/);
    await desk.sees('From Quarter 3 on: Shore Life uses Honours letters.');
  });

  it('is taken back from the notice', async () => {
    await desk.pressOnPage(']');
    await desk.reads(/3 places set/);
    await desk.click('Undo');
    await desk.reads(/2 places set/);
  });

  it('is refused from a sealed period on', async () => {
    await desk.open('/school/1/period/3/scales?view=in-force');
    await desk.reads(/in Quarter 1/);
    await desk.click('Preview and use it');
    await desk.click('Use it from Quarter 1 on');
    await desk.sees('A sealed grade changes only by amendment.');
  });
});

story('a card of standards is graded in levels', () => {
  it('draws its scale in levels and refuses a cut-off above the highest', async () => {
    await desk.open(`${primary}/scales`);
    await desk.reads(/Four steps is in force in 20 courses/);
    await desk.type('Cut-off of 4', '3,75');
    await desk.press(Key.TAB);
    await desk.holds('Cut-off of 4', '3.75');
    await desk.type('Cut-off of 4', '90');
    await desk.sees('4 begins at 90; a cut-off is from 0 to 4.');
    await desk.canPress('Preview and save', false);
    await desk.click('Discard draft');
    await desk.type('Try', '3.49');
    await desk.sees('3.49');
  });

  it('gives an item one standard of the grade book', async () => {
    await desk.open(`${primary}/report-items?item=203`);
    await desk.reads(/courses report/);
    await desk.click('Edit Doing');
    await desk.isAccessible();
    await desk.sees('Doing alone');
    await desk.choose('Category or standard', 'all its assignments');
    await desk.choose('Category or standard', 'Doing alone');
    await desk.press(Key.ESCAPE);
  });

  it('takes levels on its sheet: one above the highest, or a percentage, is refused with what would be right', async () => {
    await desk.open(`${primary}/grade-sheets?item=203`);
    await desk.reads(/Doing/);
    await desk.click('Open the next sheet with blanks');
    await desk.reads(/Posting Doing of Trimester 2/);
    await desk.isAccessible();
    const [first, second, third] = (await desk.texts('[role=rowheader]')).map((text) => text.split('\n')[0]!);
    await desk.typeInCell(first!, 'Posted level', '87');
    await desk.sees('A level is from 0 to 4');
    await desk.typeInCell(first!, 'Posted level', '3,5');
    await desk.cellHolds(first!, 'Label', '4');
    await desk.goToCell(second!, 'Posted level');
    await desk.paste('Level\n2.49\n');
    await desk.cellHolds(third!, 'Label', '2');
  });
});

story('what is taken out comes back whole', () => {
  it('an item with its rule, though the page went on to another', async () => {
    await desk.open(`${upper}/report-items`);
    await desk.reads(/48 courses report 4 items by 4 rules and 2 exceptions/);
    await desk.click('New item');
    await desk.type('Name', 'Effort');
    await desk.type('Short heading', 'Effort');
    await desk.click('Add the item');
    await desk.click('Add a rule');
    await desk.save();
    await desk.reads(/5 items by 5 rules/);
    await desk.click('Edit Effort');
    await desk.click('Delete');
    await desk.pointsAt('Effort is deleted.');
    await desk.reads(/4 items by 4 rules/);
    await desk.click('Undo');
    await desk.reads(/5 items by 5 rules/);
  });

  it('a scale that nothing uses, as the page has gone to another', async () => {
    await desk.open(`${upper}/scales?scale=12`);
    await desk.click('New scale');
    await desk.type('Name', 'Boat safety');
    await desk.click('Add the scale');
    await desk.reads(/Boat safety is not used by any item/);
    await desk.click('Delete');
    await desk.pointsAt('Boat safety is deleted.');
    await desk.click('Undo');
    await desk.sees('percent scale; from Quarter 2');
  });
});

story('a day that cannot be is refused where it is typed', () => {
  it('and every year is reached by key, by the line and by search', async () => {
    await desk.open(`${upper}/calendar`);
    await desk.reads(/days with classes in 2025–26/);
    await desk.type('Last day of Quarter 2', '1 oct 2025');
    await desk.sees('Quarter 2 begins on Nov 10, 2025');
    await desk.press(Key.ESCAPE);
    await desk.seesNot('Quarter 2 begins on Nov 10, 2025');
    await desk.click('Copy onto the next year');
    await desk.type('First day of the new year of Upper School', 'soon');
    await desk.canPress('Copy 4 calendars', false);
    await desk.press(Key.ESCAPE);
    await desk.sees('What you typed here is not saved.');
    await desk.click('Discard');
    await desk.click('Copy onto the next year');
    await desk.click('Copy 4 calendars');
    await desk.choose('School year', '2026–27');
    await desk.reads(/days with classes in 2026–27/);
    await desk.open('/school/1/period/7/scales?view=codes');
    await desk.reads(/codes may replace/);
    await desk.pressOnPage(']');
    await desk.eventually(
      async () => /period\/(\d+)\/scales\?view=codes$/.exec(await desk.driver.getCurrentUrl())?.[1] !== '7',
      true,
    );
    await desk.pressOnPage('/');
    await desk.press('quarter 1', Key.ARROW_UP, Key.ENTER);
    await desk.reads(/codes may replace/);
  });

  it('a year that is taken out takes its breaks along, so that the calendar can be saved', async () => {
    await desk.open(`${upper}/calendar`);
    await desk.click('2026–27');
    await desk.reads(/days with classes in 2026–27/);
    await desk.click('Remove 2026–27');
    await desk.reads(/days with classes in 2025–26/);
    await desk.save();
    await desk.sees('The calendar of Upper School is saved.');
  });

  it('more rows than there are courses are new ones, which say what they need', async () => {
    await desk.open(`${upper}/courses`);
    await desk.reads(/offers 48 courses/);
    await desk.goToCell(0, 'Credits');
    await desk.paste(Array.from({ length: 60 }, () => '0,5').join('\n'));
    await desk.reads(/are changed and not saved, 12 cannot be saved yet\.$/);
    await desk.click('Discard');
    await desk.click('New course');
    await desk.sees('Code of the new course: this cannot be empty');
    await desk.press('NEW1', Key.ENTER);
    expect(await desk.texts('[role=status]')).not.toEqual([]);
    await desk.click('Discard');
  });
});
