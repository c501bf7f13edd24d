import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { atWombat } from './at-wombat.js';
import { patience, story } from './desk.js';
import { startEmpty } from './wombats.js';

/* An empty Wombat gets its first school, people and courses by hand, without a pointer: every step is a key. */

const empty = atWombat(1, startEmpty);
const desk = empty.seats[0]!;

story('a first school by hand', () => {
  it('is begun from the first page', async () => {
    await desk.open('/sign-in');
    await desk.sees('Sign-in name');
    await desk.tabTo(/^Sign-in name$/);
    await desk.press('registrar', Key.TAB, empty.wombat.people[0]!.password, Key.ENTER);
    await desk.reads(/This Wombat is empty/);
    await desk.isAccessible();
    await desk.tabTo(/^Make the first school$/);
    await desk.press(Key.ENTER);
    await desk.reads(/The first school begins with its district/);
    await desk.isAccessible();
  });

  it('has its district, its name and a first year whose periods are proposed', async () => {
    await desk.canPress('Open the school', false);
    await desk.type('Name of the district', 'Skerry Islands');
    await desk.press(Key.TAB, Key.TAB, 'Skerry Upper School', Key.TAB, 'Skerry', Key.TAB, 'SKY');
    await desk.type('First day', '2026-09-01');
    await desk.press(Key.TAB);
    await desk.type('Last day', '2027-06-30');
    await desk.press(Key.TAB);
    await desk.sees('Quarter 4');
    await desk.tabTo(/^Open the school$/);
    await desk.press(Key.ENTER);
    await desk.reads(/^Skerry has 0 students and 1 staff\.$/);
    await desk.isAccessible();
  });

  it('gets its people, row by row, and keeps them in one save', async () => {
    await desk.tabTo(/^New person$/);
    await desk.press(Key.ENTER);
    await desk.sees('Number of the new person');
    await desk.press('S1', Key.TAB, 'Rook', Key.TAB, 'Bo', Key.TAB, 'pupil', Key.TAB, '10', Key.ENTER);
    await desk.tabTo(/^New person$/, true);
    await desk.press(Key.ENTER);
    await desk.sees('Number of the new person');
    await desk.press(Key.ARROW_RIGHT, 'Holm', Key.TAB, 'Ben', Key.TAB, 'teacher', Key.TAB, Key.DELETE);
    await desk.reads(/; 2 are changed and not saved\.$/);
    await desk.save();
    await desk.reads(/^Skerry has 1 student and 2 staff\.$/);
  });

  it('gets a course, and takes back its last save from the notice', async () => {
    await desk.press('/', 'courses');
    await desk.sees('Screens');
    await desk.press(Key.ENTER);
    await desk.reads(/^Skerry offers 0 courses/);
    await desk.tabTo(/^New course$/);
    await desk.press(Key.ENTER);
    await desk.sees('Code of the new course');
    await desk.press('ROPE1', Key.TAB, 'Rope Work', Key.TAB, 'Crafts', Key.ENTER);
    await desk.save();
    await desk.reads(/^Skerry offers 1 course in 1 department\.$/);
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('t').keyUp(Key.ALT).perform();
    await desk.tabTo(/^Undo$/);
    await desk.press(Key.ENTER);
    await desk.reads(/^Skerry offers 0 courses/);
  });

  it('stands in the frame, and another one is a choice away', async () => {
    await desk.tabTo(/^SkerrySkerry Islands/);
    await desk.press(Key.ENTER);
    await desk.sees('New school…');
    // The menu takes keys once it has the focus.
    await desk.driver.wait(async () => {
      await desk.press(Key.END);
      return (await desk.focused()).startsWith('New school');
    }, patience);
    await desk.press(Key.ENTER);
    await desk.reads(/a new one begins with its name and its first year/);
    await desk.isAccessible();
    expect(await desk.texts('label')).not.toContain('Name of the district');
  });
});
