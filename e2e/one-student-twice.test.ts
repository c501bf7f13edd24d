import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { signInAsRegistrar, twoAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar finds a student who is listed twice, makes one record of the two, and takes it back; a viewer only looks. */

const [registrar, viewer] = twoAtDemo();

story('a student who is listed twice', () => {
  it('is found under People, by key', async () => {
    await signInAsRegistrar(registrar);
    await registrar.open('/school/3/period/22/people');
    await registrar.reads(/^Evening College has 261 students/);
    await registrar.view('Listed twice');
    await registrar.reads(/^1 pair of records may be of one person\.$/);
    await registrar.isAccessible();
    await registrar.tabTo(/^Records that may be of one person$/);
    await registrar.press(Key.ENTER);
    await registrar.sees('One person or two?');
    await registrar.sees('born on the same day, names alike: these two may be one person.');
    await registrar.isAccessible();
  });

  it('becomes one record, which a search finds by either name, and two again by one step', async () => {
    await registrar.tabTo(/^Merge$/);
    await registrar.press(Key.ENTER);
    await registrar.reads(/^No two records look as if they were of one person\.$/);
    await registrar.press('/', 'umber tamsni');
    await registrar.sees('Umber, Tamsin');
    await registrar.press(Key.ESCAPE);
    await registrar.click('Undo');
    await registrar.reads(/^1 pair of records may be of one person\.$/);
  });
});

story('a counsellor', () => {
  it('sees all of their school, is told that nothing can be changed, and finds no way to', async () => {
    await viewer.open('/');
    await viewer.click('Sunniva Holloway');
    await viewer.reads(/Quarter 2/);
    await viewer.open('/school/1/period/4/scales');
    await viewer.reads(/is in force in/);
    await viewer.sees('You can read Scales and not change it: your role does not allow that.');
    const acts = await viewer.texts('main button');
    expect(acts.filter((act) => /^(New|Save|Delete|Preview|Import)/.test(act))).toEqual([]);
    await viewer.isAccessible();
    await viewer.open('/school/1/period/4/people');
    await viewer.reads(/560 students/);
    await viewer.tabTo(/^People$/);
    await viewer.press('X', Key.ENTER);
    expect(await viewer.texts('main button')).not.toContainEqual(expect.stringMatching(/^Save 1/));
    await viewer.open('/school/1/period/4/accounts');
    await viewer.reads(/^This page is not for your role\.$/);
    await viewer.open('/school/2/period/12/people');
    await viewer.reads(/^There is nothing at this address\.$/);
  });

  it('is seen as by the registrar, who changes nothing meanwhile and comes back', async () => {
    await registrar.open('/school/1/period/4/accounts?state=active');
    await registrar.clickWords('Holloway, Sunniva');
    await registrar.click('See what they see');
    await registrar.sees('Back to my own view');
    expect(await registrar.texts('nav[aria-label=Steps] a')).not.toContainEqual(
      expect.stringMatching(/^(Outbox|Log|Accounts)/),
    );
    await registrar.isAccessible();
    await registrar.click('Back to my own view');
    await registrar.sees('Accounts');
  });
});
