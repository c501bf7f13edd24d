import { beforeAll, expect, it } from 'vitest';
import { Key } from 'selenium-webdriver';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* A college midterm: attendance is taken, and a last date is proposed from it. By keyboard alone. */

const place = atWombat(1, startDemo);
const [teacher] = place.seats as [(typeof place.seats)[number]];
beforeAll(() => place.wombat.clock.setTo(new Date('2026-02-11T10:00:00Z')));

/** The first of the section. */
const first = 'Asante, Tressa';

story('a teacher of the college takes attendance, and posts a midterm', () => {
  it('the sections whose attendance was taken longest ago stand first', async () => {
    await teacher.open('/');
    await teacher.sees('Sign-in name');
    await teacher.tabTo(/^Sign-in name$/);
    await teacher.press('tobiah', Key.TAB, 'low-tide', Key.ENTER);
    await teacher.reads(/Posting/);
    await teacher.open('/school/3/period/23/attendance');
    await teacher.reads(/it is taken in 0 of 2 sections/);
    await teacher.isAccessible();
    await teacher.tabTo(/^Open the next section$/);
    await teacher.press(Key.ENTER);
    await teacher.reads(/Attendance of Refrigeration 2/);
  });

  it('all are present but one who is absent and one who is late, in five keys, and it is saved', async () => {
    await teacher.tabTo(/^Attendance$/);
    await teacher.press('t', Key.ARROW_RIGHT, Key.ARROW_RIGHT, 'a', 'l');
    await teacher.reads(/1 unsaved/);
    await teacher.save();
    await teacher.sees('1 register of Refrigeration 2 saved.');
    await teacher.isAccessible();
  });

  it('a code that needs a last date has the last day present proposed, and takes it only when asked', async () => {
    const { pathname } = new URL(await teacher.driver.getCurrentUrl());
    await teacher.open(`${pathname.replace('attendance', 'grade-sheets')}/301`);
    await teacher.reads(/Posting Midterm of Winter term for Refrigeration 2/);
    await teacher.typeInCell(first, 'Label', 'WDR');
    await teacher.sees('Last present Jan 20, 2026; = takes it.');
    await teacher.cellHolds(first, 'Last date', 'Jan 20, 2026?');
    await teacher.press(Key.ARROW_UP, '=');
    await teacher.cellHolds(first, 'Last date', 'Jan 20, 2026');
    await teacher.save();
    await teacher.sees('1 grade saved.');
    expect((await teacher.texts('[role=grid] [role=row]'))[1]).not.toContain('needs a last date');
  });
});
