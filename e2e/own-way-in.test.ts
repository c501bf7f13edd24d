import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* A teacher signs in by a passkey, sees things as they like them on two machines, and asks for a new password without anybody. */

/** By a name: a passkey is bound to one. */
async function startByName() {
  const demo = await startDemo();
  return { ...demo, address: demo.address.replace('127.0.0.1', 'localhost') };
}

const place = atWombat(2, startByName);
const [teacher, elsewhere] = [place.seats[0]!, place.seats[1]!];

const openMenu = async (item: string) => {
  await teacher.tabTo(/menu$/);
  await teacher.press(Key.ENTER);
  await teacher.click(item);
};

story('a teacher of their own way in', () => {
  it('adds the device to their passkeys, and signs in by it', async () => {
    await teacher.browser.giveKeyDevice();
    await teacher.open('/sign-in');
    await teacher.click('Harun Nance');
    await teacher.reads(/Quarter 2/);
    await openMenu('Passkeys');
    await teacher.sees('You have none yet.');
    await teacher.isAccessible();
    await teacher.type('Name of the device', 'Harbour laptop');
    await teacher.click('Add a passkey');
    await teacher.sees('Harbour laptop');
    await teacher.press(Key.ESCAPE);
    await openMenu('Sign out');
    await teacher.click('Sign in with a passkey');
    await teacher.reads(/Quarter 2/);
    await openMenu('Passkeys');
    expect(await teacher.sees('Your passkeys').then(() => teacher.texts('ul[aria-label="Your passkeys"] li'))).toEqual([
      expect.stringMatching(/^Harbour laptop\s+added .*; last used /),
    ]);
    await teacher.press(Key.ESCAPE);
  });

  it('has names and rows as they like them, here and on another machine, until they like them otherwise', async () => {
    const names = (desk: typeof teacher) => desk.texts('[role=row] [role=gridcell]:first-child');
    await teacher.open('/school/1/period/4/grade-sheets');
    await teacher.reads(/Quarter 2/);
    await openMenu('Your view');
    await teacher.isAccessible();
    await teacher.choose('People by', 'given name');
    await teacher.choose('Rows', 'with room between them');
    await teacher.click('Save');
    await elsewhere.open('/sign-in');
    await elsewhere.type('Sign-in name', 'harun');
    const password = await elsewhere.type('Password', 'low-tide');
    await password.sendKeys(Key.ENTER);
    await elsewhere.reads(/Quarter 2/);
    expect(await elsewhere.driver.executeScript('return document.documentElement.dataset.density')).toBe('roomy');
    expect((await names(teacher)).length).toBe((await names(elsewhere)).length);
  });

  it('finds the first steps and the words of the screen, and hides the steps for good', async () => {
    await teacher.sees('Hide first steps');
    await teacher.press('?');
    await teacher.sees('First steps of a teacher');
    await teacher.sees('Words of this screen');
    await teacher.isAccessible();
    await teacher.press(Key.ESCAPE);
    await teacher.click('Hide first steps');
    await teacher.seesNot('Hide first steps');
    expect(await teacher.texts('aside')).toEqual([]);
    // It is kept a moment later.
    await elsewhere.eventually(async () => {
      await elsewhere.open('/');
      await elsewhere.reads(/Quarter 2/);
      return elsewhere.texts('aside');
    }, []);
  });

  it('asks for a new password by the sign-in name alone, and is told the same for any other', async () => {
    await elsewhere.tabTo(/menu$/);
    await elsewhere.press(Key.ENTER);
    await elsewhere.click('Sign out');
    const told: string[] = [];
    for (const name of ['harun', 'nobody-here']) {
      await elsewhere.open('/sign-in');
      await elsewhere.click('Forgotten password?');
      await elsewhere.isAccessible();
      const field = await elsewhere.type('Sign-in name or e-mail', name);
      await field.sendKeys(Key.ENTER);
      told.push(await elsewhere.sees('If there is an account of that name').then((text) => text.getText()));
    }
    expect(new Set(told).size).toBe(1);
  });
});
