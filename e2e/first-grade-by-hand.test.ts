import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startEmpty } from './wombats.js';

/* A school of two teachers and thirty students, from an empty Wombat to its first posted grade: by key alone, and counted. */

const empty = atWombat(1, startEmpty);
const desk = empty.seats[0]!;
let presses = 0;

/** Presses keys; a text that is typed counts as one for each sign. */
async function press(...keys: string[]): Promise<void> {
  presses += keys.join('').length;
  await desk.press(...keys);
}

/** Goes to something by Tab; each step counts. */
async function tabTo(name: RegExp, isBack = false): Promise<void> {
  presses += await desk.tabTo(name, isBack);
}

/** Goes on to the next step, once it is offered. */
async function goOnTo(step: string): Promise<void> {
  await desk.sees(`Next: ${step}`);
  await tabTo(new RegExp(`^Next: ${step}$`), true);
  await press(Key.ENTER);
}

async function save(): Promise<void> {
  presses += 1;
  await desk.save();
}

/** Pastes what a spreadsheet puts on the clipboard, where the focus is. */
async function paste(rows: readonly (readonly string[])[]): Promise<void> {
  presses += 1;
  await desk.paste(rows.map((row) => row.join('\t')).join('\n'));
}

const numbers = Array.from({ length: 30 }, (_none, at) => `S${at + 1}`);

story('a small school', () => {
  it('is opened, and says what comes first', async () => {
    await desk.open('/sign-in');
    await desk.sees('Sign-in name');
    await tabTo(/^Sign-in name$/);
    await press('registrar', Key.TAB, empty.wombat.people[0]!.password, Key.ENTER);
    await desk.reads(/This Wombat is empty/);
    await tabTo(/^Make the first school$/);
    await press(Key.ENTER);
    await desk.reads(/The first school begins with its district/);
    await tabTo(/^Name of the district$/);
    await press('Skerry', Key.TAB, Key.TAB, 'Skerry School', Key.TAB, 'Skerry', Key.TAB, 'SKY');
    await desk.canPress('Open the school');
    await tabTo(/^Open the school$/);
    await press(Key.ENTER);
    await desk.reads(/^Skerry has 0 students and 1 staff\.$/);
    await desk.sees('First grade');
    await desk.isAccessible();
  });

  it('gets thirty students and two teachers in one paste', async () => {
    await tabTo(/^New person$/);
    await press(Key.ENTER);
    await desk.sees('Number of the new person');
    await paste([
      ['T1', 'Holm', 'Ben', 'teacher'],
      ['T2', 'Voe', 'Ina', 'teacher'],
      ...numbers.map((number, at) => [number, `Family ${at + 1}`, `Given ${at + 1}`, 'student', '10']),
    ]);
    await desk.reads(/; 32 are changed and not saved\.$/);
    await save();
    await desk.reads(/^Skerry has 30 students and 3 staff\.$/);
    await goOnTo('Courses');
    await desk.reads(/^Skerry offers 0 courses/);
  });

  it('gets its courses, its sections and who sits in them', async () => {
    await tabTo(/^New course$/);
    await press(Key.ENTER);
    await desk.sees('Code of the new course');
    await paste([
      ['WEA', 'Weaving', 'Crafts'],
      ['ROP', 'Rope Work', 'Crafts'],
    ]);
    await desk.reads(/; 2 are changed and not saved\.$/);
    await save();
    await desk.reads(/^Skerry offers 2 courses in 1 department\.$/);
    await goOnTo('Sections');

    await desk.reads(/^Skerry runs 0 sections/);
    await tabTo(/^New section$/);
    await press(Key.ENTER);
    await desk.sees('Course of the new section');
    await paste([
      ['WEA', '1', 'T1'],
      ['ROP', '1', 'Ina Voe'],
    ]);
    await desk.reads(/; 2 are changed and not saved\.$/);
    await save();
    await desk.reads(/^Skerry runs 2 sections in .*, taught by 2 teachers; nobody sits in 2 sections\.$/);
    await desk.isAccessible();
    await goOnTo('Enrollments');

    await desk.reads(/have 0 seats in 2 sections\.$/);
    await tabTo(/^New enrollment$/);
    await press(Key.ENTER);
    await desk.sees('Section of the new enrollment');
    await paste([
      ...numbers.map((number) => ['Weaving 1', number]),
      ...numbers.slice(0, 12).map((number) => ['ROP 1', number]),
    ]);
    await desk.reads(/; 42 are changed and not saved\.$/);
    await save();
    await desk.reads(/^30 students of Skerry have 42 seats in 2 sections\.$/);
    await desk.isAccessible();
    await goOnTo('Scales');
  });

  it('gets a scale, and an item that every course reports', async () => {
    await desk.reads(/^No scale is in force/);
    await tabTo(/^New scale$/);
    await press(Key.ENTER);
    await desk.sees('Begin with');
    await press('Letters', Key.TAB, Key.TAB, 'A, B');
    await desk.canPress('Add the scale');
    await tabTo(/^Add the scale$/);
    await press(Key.ENTER);
    await desk.reads(/^Letters is not used by any item/);
    await goOnTo('Report items');
    await desk.reads(/^No report item yet/);
    await tabTo(/^New item$/);
    await press(Key.ENTER);
    await desk.sees('Short heading');
    await press('Quarter grade', Key.TAB, 'Grade');
    await tabTo(/^Scale$/);
    await press('Letters');
    await desk.canPress('Add the item');
    await tabTo(/^Add the item$/);
    await press(Key.ENTER);
    await desk.sees('No course reports it yet');
    await desk.picture('item-added');
    await tabTo(/^New rule$/);
    await press(Key.ENTER);
    await desk.sees('would report Quarter grade');
    await desk.picture('rule');
    await save();
    await desk.reads(/report 1 item by 1 rule/);
    await desk.picture('ruled');
    await goOnTo('First grade');
  });

  it('posts its first grade, and is under way', async () => {
    await desk.reads(/^Quarter grade of Quarter 1: 0 of 2 sections are complete/);
    await desk.isAccessible();
    await tabTo(/^Open the next sheet with blanks$/);
    await press(Key.ENTER);
    await desk.reads(/Weaving 1/);
    await tabTo(/^Grade sheet$/);
    await press('91.5', Key.ENTER);
    await desk.reads(/1 unsaved/);
    await save();
    await desk.sees('Post for Quarter 1 outside its window?');
    await desk.sees('Post for Quarter 1 outside');
    await tabTo(/^Post for Quarter 1$/);
    await press(Key.ENTER);
    await desk.sees('1 grade saved.');
    await desk.reads(/Weaving 1: 1 of 30 done/);
    await desk.cellHolds('Family 1, Given 1', 'Label', 'A');
    await desk.isAccessible();
  });

  it('took few keys for it, the texts that were typed among them', () => {
    // Some 340, pasted lists counting as one: at three seconds each it is less than twenty minutes.
    expect(presses).toBeLessThan(400);
  });
});
