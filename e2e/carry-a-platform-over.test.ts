import { Key } from 'selenium-webdriver';
import { beforeAll, it } from 'vitest';
import { registrarAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar looks at what the night did not bring, mends it, carries over what is left, and takes it back. */

const registrar = registrarAtDemo();
beforeAll(() => registrar.open('/school/3/period/23/runs'));

story('a run', () => {
  it('of the night says how much it wrote and how much it did not send', async () => {
    await registrar.reads(/Fernway was last carried over .*: 258 rows written, 529 not sent/);
    await registrar.sees('the night');
    await registrar.isAccessible();
    await registrar.click('529');
    await registrar.reads(/10 rows refused and 9 skipped hold back 510 scores/);
    await registrar.isAccessible();
  });

  it('explains each refusal in a sentence that names what is wrong', async () => {
    await registrar.click('More points than there are');
    await registrar.clickWords('Oake, Juno');
    await registrar.sees('11 is more than the 10 it is out of.');
    await registrar.isAccessible();
    await registrar.press(Key.ESCAPE);
    await registrar.click('Its group is not joined to a category');
    await registrar.clickWords('Bonus question');
    await registrar.sees('It is in no group, or in one that is not matched to a category.');
    await registrar.press(Key.ESCAPE);
  });

  it('finds what was refused for want of a group mended by a default category, and counts what goes there', async () => {
    await registrar.click('Runs');
    await registrar.choose('Default category of Fernway', 'goes into Assignments');
    await registrar.choose('What', 'assignments, scores and totals');
    await registrar.click('Plan the run');
    await registrar.reads(/37 rows would be written into Winter term/);
    await registrar.sees('Put into the default category');
    await registrar.sees('The posting window is not open');
    await registrar.isAccessible();
  });

  it('writes only what was picked', async () => {
    await registrar.click('new');
    await registrar.sees('new: 37');
    const [first] = await registrar.texts('tbody tr:nth-child(2) td:nth-child(4) b');
    await registrar.tick(`Carry out ${first}`);
    await registrar.reads(/36 rows would be written/);
    await registrar.click('Carry out 36');
    await registrar.reads(/36 rows of Fernway written into Winter term/);
    await registrar.sees('not picked');
  });

  it('stands beside the grades it brought', async () => {
    await registrar.view('Classes');
    await registrar.isAccessible();
    await registrar.clickWords('Net Mending for Trade 2');
    await registrar.clickWords('Bonus question');
    await registrar.click('Open the grade book');
    await registrar.sees('Fernway was read just now:');
    await registrar.click('36 rows written');
    await registrar.reads(/36 rows of Fernway written/);
  });

  it('tells teachers in a letter what only they can put right', async () => {
    await registrar.click('Message the teachers');
    await registrar.sees('the following stayed behind:');
    await registrar.isAccessible();
    await registrar.click('Write 9 messages');
    await registrar.sees('messages written.');
    await registrar.click('Outbox');
    await registrar.reads(/messages are in the outbox/);
    await registrar.isAccessible();
    await registrar.clickWords('did not come over into Winter term');
    await registrar.sees('Save as a file');
    await registrar.driver.navigate().back();
    await registrar.driver.navigate().back();
    await registrar.reads(/36 rows of Fernway written/);
  });

  it('is taken back, and planned again it would bring the same', async () => {
    await registrar.click('Undo the run');
    await registrar.isAccessible();
    await registrar.click('Undo 36 rows');
    await registrar.reads(/36 rows of Fernway were undone/);
    await registrar.click('Plan it again');
    await registrar.reads(/37 rows would be written/);
    await registrar.click('Discard');
    await registrar.reads(/Fernway was last carried over/);
  });

  it('is set for the night, or not, in a sentence', async () => {
    await registrar.choose('Time of Fernway', 'has no nightly run');
    await registrar.seesNot('for Morwenna Oake');
    await registrar.choose('Time of Fernway', 'runs every night at 03:30');
    await registrar.sees('for Morwenna Oake');
  });
});
