import { beforeAll, expect, it } from 'vitest';
import { By, Key } from 'selenium-webdriver';
import { atWombat } from './at-wombat.js';
import { story, type Desk } from './desk.js';
import { startDemo } from './wombats.js';

/* The last twenty minutes of a posting window: a teacher without a pointer, and a registrar who watches. */

const place = atWombat(2, startDemo);
const [teacher, registrar] = place.seats as [(typeof place.seats)[number], (typeof place.seats)[number]];
beforeAll(() => place.wombat.clock.setTo(new Date('2026-01-23T16:40:00Z')));

/** Opens the row of a list that holds some words. */
async function openRow({ driver }: Desk, words: string): Promise<void> {
  const row = By.xpath(`//tbody/tr[contains(., '${words}')]`);
  // A row may be drawn anew between the look and the click.
  await driver.wait(
    () =>
      driver
        .findElement(row)
        .then((found) => found.click().then(() => true))
        .catch(() => false),
    60_000,
    `no row with ${words}`,
  );
}

/** The students of the sheet, without what is said of them beside their names. */
const students = async () => (await teacher.texts('[role=rowheader]')).map((text) => text.split('\n')[0]!);

story('a teacher finishes by keyboard alone while the registrar watches the board', () => {
  it('the teacher comes to the sheet that is not done, and is told that minutes are left', async () => {
    await teacher.open('/');
    await teacher.sees('Sign-in name');
    await teacher.tabTo(/^Sign-in name$/);
    await teacher.press('harun', Key.TAB, 'low-tide', Key.ENTER);
    await teacher.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1: 0 of 20 done/);
    await teacher.reads(/The window closes in \d+ minutes/);
  });

  it('the registrar sees who is open, by teacher, and reminds one after a look at the message', async () => {
    await registrar.open('/');
    await registrar.click('Morwenna Oake');
    await registrar.reads(/sections are complete/);
    await registrar.click('Board');
    await registrar.reads(/238 of 304 sheets are signed off; 66 are not/);
    await registrar.isAccessible();
    await registrar.click('Teachers');
    await openRow(registrar, 'Nance, Harun');
    await registrar.reads(/8 of 9 sheets are signed off; 1 is not/);
    await registrar.click('Remind 1 teacher…');
    await registrar.sees('Dear Harun Nance,');
    await registrar.sees('- Tidal Ecology 1, Quarter grade: 20 blanks');
    await registrar.isAccessible();
    await registrar.click('Send 1 message');
    await registrar.sees('1 reminder sent to the outbox.');
    await registrar.click('Remind 1 teacher…');
    await registrar.sees('reminded 1 time before');
    await registrar.sees('This is reminder 2.');
    await registrar.click('Back');
  });

  it('twenty grades are typed, one is explained and commented on, and all are saved', async () => {
    await teacher.tabTo(/^Grade sheet$/);
    for (let typed = 0; typed < 20; typed++) await teacher.press(String(75 + typed), Key.ENTER);
    await teacher.reads(/20 of 20 done, 20 unsaved/);
    await teacher.press('k', 'm');
    await teacher.sees('Stock comments');
    await teacher.isAccessible();
    await teacher.tabTo(/works with care/);
    await teacher.press(Key.ENTER);
    await teacher.tabTo(/^Done$/);
    await teacher.press(Key.ENTER);
    await teacher.save();
    await teacher.sees('20 grades saved.');
  });

  it('the sheet is signed off with a note, and the board shows it without being asked', async () => {
    await teacher.tabTo(/^Sign off…$/, true);
    await teacher.press(Key.ENTER);
    await teacher.sees('Nothing is missing.');
    await teacher.isAccessible();
    await teacher.tabTo(/^Note for the registrar/);
    await teacher.press('All in.');
    await teacher.tabTo(/^Sign off$/);
    await teacher.press(Key.ENTER);
    await teacher.sees('Tidal Ecology 1 is signed off. No other sheet waits.');
    await registrar.reads(/9 of 9 sheets are signed off/);
  });

  it('the sign-off is taken back, and the board shows that too', async () => {
    await teacher.open('/school/1/period/4/grade-sheets');
    await teacher.reads(/sections are complete/);
    await openRow(teacher, 'Tidal Ecology 1');
    await teacher.sees('“All in.”');
    await registrar.reads(/9 of 9/);
    await teacher.tabTo(/^Take back the sign-off$/);
    await teacher.press(Key.ENTER);
    await teacher.sees('The sign-off is taken back. Grades can be changed again.');
    await registrar.reads(/8 of 9 sheets are signed off; 1 is not/);
  });

  it('the window closes under the teacher’s hands: nothing is lost, and the registrar is asked', async () => {
    const [first] = await students();
    await teacher.typeInCell(first!, 'Posted %', '98');
    place.wombat.clock.setTo(new Date('2026-01-23T17:00:01Z'));
    await teacher.save();
    await teacher.sees('For Quarter grade in Quarter 2 it is closed.');
    await teacher.cellHolds(first!, 'Posted %', '98.0');
    await teacher.click('Hand 1 grade to the registrar…');
    await teacher.type('Why it comes now', 'The bell rang.');
    await teacher.click('Hand over');
    await teacher.sees('You asked the registrar to post 1 grade');
    await teacher.isAccessible();
  });

  it('the registrar finds the request on the board, posts it on behalf of the teacher, and both have the receipt', async () => {
    await registrar.open('/school/1/period/4/board?show=requests');
    await openRow(registrar, 'Tidal Ecology 1');
    await registrar.sees('Harun Nance asks the registrar to post 1 grade');
    await registrar.sees('You post on behalf of');
    await registrar.click('Put them on the sheet');
    await registrar.reads(/1 unsaved/);
    await registrar.save();
    await registrar.click('Post for Quarter 2');
    await registrar.sees('1 grade saved.');
    await teacher.open('/school/1/period/4/receipts');
    await teacher.reads(/21 grades were changed in 2 saves, 1 of them on behalf of a teacher/);
    await teacher.sees('Morwenna Oake on behalf of Harun Nance');
    await teacher.isAccessible();
    await registrar.click('Receipts');
    await registrar.reads(/1 grade was changed in 1 save/);
    expect(await registrar.texts('h2 a')).toEqual(['Tidal Ecology 1']);
  });

  it('what families see is looked at, now and once the period is sealed', async () => {
    await registrar.open('/school/1/period/4/students');
    await registrar.reads(/students/);
    await registrar.clickOn('tbody tr');
    await registrar.click('As families see it');
    await registrar.reads(/now sees \d+ of \d+ grades of Quarter 2/);
    await registrar.isAccessible();
    await registrar.click('Period sealed');
    await registrar.reads(/will see, once it is sealed/);
  });
});
