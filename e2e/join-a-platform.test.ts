import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { registrarAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar joins a new platform with 120 sections, deciding each name once. */

const registrar = registrarAtDemo();
let decisions = 0;

/** Each thing the registrar decides is one of the few that it may take. */
async function decides(...names: string[]) {
  for (const name of names) await registrar.click(name);
  decisions++;
}

story('a new platform', () => {
  it('is read over HTTP, with what waits to be joined', async () => {
    await registrar.click('Platforms');
    await registrar.reads(/1 learning platform is connected. 145 classes and names wait/);
    await registrar.isAccessible();
    await registrar.click('Connect a platform');
    await registrar.type('Name', 'Quillpond');
    await registrar.type('Address', 'quillpond');
    await registrar.type('Client id', 'wombat');
    await registrar.type('Secret', 'none');
    await registrar.click('Connect and read');
    await registrar.sees('an address such as https://platform.example');
    await registrar.press(Key.ESCAPE);
    await registrar.sees('What you typed here is not saved.');
    await registrar.isAccessible();
    await registrar.click('Discard');
    await registrar.click('Read it again');
    await registrar.reads(/145 classes and names wait/);
  });

  it('has its classes joined by who sits in them; two that claim one section are settled by hand', async () => {
    await registrar.click('Matches');
    await registrar.reads(/0 of 122 classes on Quillpond are joined/);
    await registrar.isAccessible();
    await registrar.choose('Line', '80');
    await decides('Accept 119 proposals');
    await registrar.reads(/119 of 122 classes/);
    await decides('Ignore Shore Life (1) copy');
    await decides('Ignore Staff room');
    await registrar.reads(/Still to decide: 1 class,/);
    await decides('Join Shore Life (1)');
    await registrar.reads(
      /120 of 122 classes on Quillpond are joined to our sections. Still to decide: 20 group names/,
    );
  });

  it('has its groups joined by name, over all sections at once, and a decision can be taken back', async () => {
    await registrar.view('Groups');
    await registrar.sees('The group Quizzes & Tests in 3 classes is our category');
    await registrar.isAccessible();
    await registrar.choose('Line', '70');
    await decides('Accept 15 proposals');
    await registrar.reads(/Still to decide: 5 group names/);
    await registrar.click('Undo');
    await registrar.reads(/Still to decide: 20 group names/);
    await registrar.click('Accept 15 proposals');
    await registrar.reads(/Still to decide: 5 group names/);
    await decides('Quizzes & Tests', 'Join');
    await registrar.reads(/Still to decide: 4 group names/);
    await decides('Odds and ends', 'Ignore');
    await registrar.reads(/Still to decide: 3 group names/);
    for (const [name, key, left] of [
      ['Workshop', '1', /Still to decide: 2 group names/],
      ['In class', '1', /Still to decide: 1 group name,/],
      ['Exams', '4', /Still to decide: 3 total columns/],
    ] as const) {
      await registrar.click(name);
      await registrar.sees(`The group ${name} in`);
      await registrar.pressOnPage(key);
      decisions++;
      await registrar.reads(left);
    }
  });

  it('has its totals and its last students joined', async () => {
    await registrar.view('Totals');
    await decides('Accept 1 proposal');
    await registrar.reads(/Still to decide: 2 total columns/);
    for (const [name, left] of [
      ['Overall', /Still to decide: 1 total column/],
      ['Course total', /Still to decide: 8 students/],
    ] as const) {
      await registrar.click(name);
      await registrar.choose('Our report item', 'Quarter grade');
      await decides('Join');
      await registrar.reads(left);
    }
    await registrar.view('People');
    await registrar.sees('548 students were found by number or address and need no decision.');
    await registrar.isAccessible();
    await decides('Accept 8 proposals');
    await registrar.reads(/Nothing waits for a decision/);
  });

  it('took fewer than twenty decisions for 120 sections', () => {
    expect(decisions).toBeGreaterThan(0);
    expect(decisions).toBeLessThan(20);
  });

  it('shows every section with its groups, and the joins of one alone', async () => {
    await registrar.view('All sections');
    await registrar.sees('Feeds none');
    await registrar.isAccessible();
    await registrar.clickWords('Boatbuilding (1)');
    await registrar.sees('a decision here applies to this class only.');
    await registrar.click('Odds and ends');
    await registrar.sees('The group Odds and ends in 1 class is our category');
    await registrar.picture('one-class');
  });

  it('has its weights compared with ours, and theirs taken for all sections weighed alike, and put back', async () => {
    await registrar.view('Weights');
    await registrar.sees('weighted differently');
    await registrar.isAccessible();
    await registrar.click('Preview their weights');
    await registrar.sees('Posted grades stay as they are.');
    await registrar.isAccessible();
    await registrar.click('Use their weights for Quarter 2');
    await registrar.pointsAt('are weighted as on Quillpond.');
    await registrar.click('Undo');
    await registrar.sees('Undone: accept the weights of Quillpond.');
  });

  it('stays joined when it is read again', async () => {
    await registrar.click('Platforms');
    await registrar.click('Read it again');
    await registrar.reads(/All their classes and names are decided/);
  });
});
