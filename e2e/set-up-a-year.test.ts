import { By, Key } from 'selenium-webdriver';
import { it } from 'vitest';
import { registrarAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar in summer: the next year for all four schools, one new item for all courses, courses in bulk, codes. */

const desk = registrarAtDemo();

const has = async (name: string) => (await desk.driver.findElements(By.css(`[aria-label="${name}"]`))).length > 0;

story('a new school year', () => {
  it('is copied from last year’s for all four schools at once', async () => {
    await desk.click('Calendar');
    await desk.reads(/Upper School has 187 days with classes in 2025–26, in 4 quarters/);
    await desk.isAccessible();
    await desk.click('Copy onto the next year');
    await desk.sees('Aug 31, 2026 to Jun 11, 2027');
    await desk.picture('copy-year');
    await desk.click('Copy 4 calendars');
    await desk.sees('4 calendars copied onto the next year.');
    await desk.click('2026–27');
    await desk.reads(/days with classes in 2026–27/);
    await desk.picture('calendar-next-year');
  });

  it('is moved by key, takes its neighbour along, refuses what cannot be, and steps back', async () => {
    const edge = () => desk.driver.findElement(By.css('[aria-label="Last day of Quarter 1"][role="slider"]'));
    const value = async () => (await edge()).getAttribute('aria-valuetext');
    await desk.eventually(value, 'Nov 6, 2026');
    await (await edge()).sendKeys(Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await desk.eventually(value, 'Nov 13, 2026');
    await desk.sees('Nov 16, 2026');
    await desk.type('Last day of Quarter 4', '30 jun 2027');
    await desk.press(Key.TAB);
    await desk.sees('Quarter 4 reaches outside Semester 2');
    await desk.canPress('Save the calendar', false);
    await desk.click('Undo last step');
    await desk.seesNot('reaches outside');
    await desk.click('Save the calendar');
    await desk.sees('The calendar of Upper School is saved.');
  });

  it('is moved by pointer as well, one step for a drag, and a save can be undone', async () => {
    const edge = () => desk.driver.findElement(By.css('[aria-label="Last day of Quarter 3"][role="slider"]'));
    const value = async () => (await edge()).getAttribute('aria-valuetext');
    await desk.driver.navigate().refresh(); // so that there is one notice to undo
    await desk.reads(/./);
    const before = await value();
    await desk.driver
      .actions()
      .dragAndDrop(await edge(), { x: 14, y: 0 })
      .perform();
    await desk.eventually(async () => (await value()) !== before, true);
    await desk.click('Undo last step');
    await desk.eventually(value, before);
    await desk.driver
      .actions()
      .dragAndDrop(await edge(), { x: -14, y: 0 })
      .perform();
    const moved = await value();
    await desk.click('Save the calendar');
    await desk.pointsAt('The calendar of Upper School is saved.');
    await desk.eventually(value, moved);
    await desk.click('Undo');
    await desk.sees('Undone: save the calendar of Upper School.');
    await desk.eventually(value, before);
  });

  it('shows the other schools beside it, each with its own year', async () => {
    await desk.click('Gannet Primary');
    await desk.reads(/Gannet Primary has \d+ days with classes in 2026–27, in 3 trimesters/);
    await desk.click('Evening College');
    await desk.reads(/Evening College has \d+ days with classes in 2026–27, in 3 terms/);
    await desk.open('/school/1/period/4/calendar');
    await desk.reads(/Upper School has 187 days with classes in 2025–26/);
  });
});

story('one new report item for all courses, with three exceptions', () => {
  it('is made, given by a rule, and taken from three courses', async () => {
    await desk.click('Report items');
    await desk.reads(/report 4 items by 4 rules/);
    await desk.click('New item');
    await desk.sees('The item needs a name, such as Quarter grade.');
    await desk.type('Name', 'Effort');
    await desk.type('Short heading', 'Effort');
    await desk.choose('Kind', 'conduct');
    await desk.choose('Kind of period', 'each quarter');
    await desk.tick('Quarter 1');
    await desk.tick('Quarter 2');
    await desk.choose('Scale', 'Conduct');
    await desk.choose('Families see', 'the descriptor');
    await desk.isAccessible();
    await desk.picture('new-item');
    await desk.click('Add the item');
    await desk.sees('Effort is added. No course reports it yet: give it a rule.');
    await desk.click('Add a rule');
    await desk.sees('48 courses');
    await desk.sees('would report Effort');
    for (const course of ['Boatbuilding', 'Beekeeping', 'Debating']) {
      await desk.click(`Effort of ${course}: by rule 5`);
      await desk.type('Reason for an exception', 'no effort mark by agreement');
      await desk.click('Make an exception: do not report it');
      await desk.seesNot('Make an exception');
    }
    await desk.sees('45 courses');
    await desk.picture('exceptions');
    await desk.click('Save rules and exceptions');
    await desk.reads(/report 5 items by 5 rules and 5 exceptions/);
    await desk.click('5 exceptions');
    await desk.sees('Debating');
    await desk.eventually(() => has('Effort of Debating: an exception: no effort mark by agreement'), true);
    await desk.eventually(() => has('Effort of Knots: by rule 5'), false);
  });

  it('a composite that does not make 100 cannot be saved; other weights are looked at first', async () => {
    await desk.open('/school/1/period/4/report-items?item=102');
    await desk.click('Edit Semester grade');
    await desk.type('Weight of part 3', '19.99');
    await desk.sees('0.01 of 100 is still to be given.');
    await desk.canPress('See what it would do', false);
    await desk.type('Weight of part 3', '20');
    await desk.seesNot('still to be given');
    await desk.type('Weight of part 1', '30');
    await desk.type('Weight of part 2', '50');
    await desk.click('See what it would do');
    await desk.sees('computed grades of Semester 1');
    await desk.isAccessible();
    await desk.picture('item-effect');
    await desk.click('Back to the item');
    await desk.holds('Weight of part 2', '50');
    await desk.click('Cancel');
  });

  it('a semester’s sheet computes from its parts and says which is missing', async () => {
    await desk.open('/school/1/period/2/grade-sheets');
    await desk.reads(/Semester grade of Semester 1/);
    await desk.open('/school/1/period/2/grade-sheets?item=102');
    await desk.click('Open the next sheet with blanks');
    await desk.eventually(async () => /grade-sheets\/\d+\/102/.test(await desk.driver.getCurrentUrl()), true);
    await desk.reads(/Posting Semester grade/);
    await desk.picture('semester-sheet');
    await desk.pressOnPage('w');
    await desk.sees('Made of its parts');
  });
});

story('courses in bulk', () => {
  it('are pasted, filled, set by the dozen and saved; a cell that cannot be taken says why', async () => {
    await desk.open('/school/1/period/4/courses?department=Half-year+courses');
    await desk.reads(/Upper School offers 48 courses in 7 departments/);
    await desk.isAccessible();
    await desk.tick('Select all courses shown');
    await desk.sees('12 courses selected:');
    await desk.choose('Fact', 'Maximum credits');
    await desk.type('Value', '1.5');
    await desk.click('Set it');
    await desk.reads(/12 are changed and not saved/);
    await desk.goToCell(0, 'Credits');
    await desk.press('half', Key.ENTER);
    await desk.reads(/1 cannot be saved yet/);
    await desk.canPress('Save 12 courses', false);
    await desk.picture('courses-bulk');
    await desk.click('Undo last step');
    await desk.click('Save 12 courses');
    await desk.sees('12 courses saved.');
    await desk.reads(/48 courses in 7 departments\.$/);
  });
});

story('the district’s codes', () => {
  it('at 1024 pixels keep in sight which course each is, while the rest scrolls to its scale', async () => {
    await desk.browser.resize({ width: 1024, height: 800 });
    await desk.open('/school/1/period/4/courses');
    await desk.reads(/48 courses in 7 departments/);
    const seen = () =>
      desk.driver.executeScript<boolean[]>(`
        const grid = document.querySelector('[aria-label=Courses][aria-rowcount]');
        grid.scrollLeft = 400;
        const { left, right } = grid.getBoundingClientRect();
        const row = grid.querySelector('[role=row][aria-rowindex="2"]').children;
        return [row[2], row[row.length - 1]].map((cell) => {
          const at = cell.getBoundingClientRect();
          return at.left >= left - 1 && at.right <= right + 1;
        });`);
    await desk.eventually(seen, [true, true]);
    await desk.browser.resize({ width: 1280, height: 800 });
  });

  it('grow by one, which may not read like a label', async () => {
    await desk.open('/school/1/period/4/scales?view=codes');
    await desk.reads(/10 codes may replace/);
    await desk.isAccessible();
    await desk.click('New code');
    await desk.type('Code', 'A');
    await desk.type('Means', 'Auditor');
    await desk.sees('A is also the label of a scale');
    await desk.type('Code', 'AUD');
    await desk.seesNot('is also the label');
    await desk.click('Save the codes');
    await desk.sees('The codes are saved.');
    await desk.reads(/11 codes may replace/);
  });
});

story('a scale from another program', () => {
  it('states both ends, leaves a gap at one decimal, and is settled on its ruler', async () => {
    await desk.open('/school/1/period/4/scales?scale=1');
    await desk.reads(/Letter scale/);
    await desk.click('Import bands');
    const table = await desk.driver.findElement(By.css('textarea'));
    await table.sendKeys('A;90;100;4.0\nB;80;89;3.0\nF;0;79.9;0');
    await desk.sees('89.1 to 89.9 lies between B and A and has no label.');
    await desk.canPress('Use 3 bands as the draft', false);
    await desk.picture('import-scale');
    await desk.click('B reaches up');
    await desk.sees('The bands leave nothing out');
    await desk.click('Use 3 bands as the draft');
    await desk.reads(/the draft would move/);
    await desk.click('Discard draft');
  });
});
