import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { registrarAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar makes one section of two, by key, and two of one; each is looked at first and taken back by one step. */

const registrar = registrarAtDemo();

/** Ticks the first rows of the grid, from the keyboard. */
async function tickFirst(rows: number): Promise<void> {
  await registrar.eventually(async () => (await registrar.texts('[role=gridcell]')).length > rows, true);
  for (let row = 1; row <= rows; row++) {
    await registrar.driver.executeScript(
      `document.querySelectorAll('[role=gridcell] input[type=checkbox]')[${row - 1}].focus()`,
    );
    await registrar.press(Key.SPACE);
  }
}

story('two sections of a course', () => {
  it('become one after a look at who comes along, and for how many there is room', async () => {
    await registrar.open('/school/1/period/4/sections?text=argument%20and%20assembly');
    await registrar.reads(/^Upper School runs 197 sections/);
    await tickFirst(2);
    await registrar.tabTo(/^Merge…$/);
    await registrar.press(Key.ENTER);
    await registrar.sees('40 students will sit in Argument and Assembly 1, which has 24 seats.');
    await registrar.isAccessible();
    await registrar.tabTo(/^Merge$/);
    await registrar.press(Key.ENTER);
    await registrar.sees('Argument and Assembly 2 merged into Argument and Assembly 1; 19 students moved.');
    await registrar.reads(/; 2 sections have more students than seats\.$/);
  });

  it('are two again by one step', async () => {
    await registrar.tabTo(/^Undo$/);
    await registrar.press(Key.ENTER);
    await registrar.reads(/; 1 section has more students than seats\.$/);
  });
});

story('a section that is too full', () => {
  it('gives some of its students a section of their own, with the same assignments', async () => {
    await registrar.open('/school/1/period/4/sections?overfull=yes');
    await registrar.reads(/^Upper School runs 197 sections/);
    await tickFirst(1);
    await registrar.tabTo(/^Split…$/);
    await registrar.press(Key.ENTER);
    await registrar.reads(/select who goes to a new section and choose Split\.$/);
    await tickFirst(3);
    await registrar.tabTo(/^Split…$/);
    await registrar.press(Key.ENTER);
    await registrar.tabTo(/^Taught by/);
    await registrar.press(Key.ENTER);
    await registrar.press('gull', Key.ENTER);
    await registrar.sees('3 students will sit in');
    await registrar.isAccessible();
    await registrar.tabTo(/^Split$/);
    await registrar.press(Key.ENTER);
    await registrar.sees('is made, with 3 students of');
    await registrar.open('/school/1/period/4/sections');
    await registrar.reads(/^Upper School runs 198 sections/);
    expect(await registrar.headline()).not.toMatch(/more students than seats/);
  });
});
