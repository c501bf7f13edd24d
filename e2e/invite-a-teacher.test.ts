import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* A teacher is invited, chooses a password by the link, works, changes it, and is let in no more. */

const place = atWombat(2, startDemo);
const [registrar, teacher] = [place.seats[0]!, place.seats[1]!];
const passphrase = 'three boats and a lamp';

story('a teacher without an account', () => {
  it('is invited from the list, by key', async () => {
    await registrar.open('/sign-in');
    await registrar.tabTo(/^Sign-in name$/);
    await registrar.press('morwenna', Key.TAB, 'low-tide', Key.ENTER);
    await registrar.reads(/Quarter 2/);
    await registrar.press('/', 'accounts');
    await registrar.sees('Screens');
    await registrar.press(Key.ENTER);
    await registrar.reads(/^5 of 39 staff can sign in; 34 have no account\.$/);
    await registrar.isAccessible();
    await registrar.tabTo(/^Accounts of the staff$/);
    await registrar.press('Trevail');
    await registrar.sees('An invitation goes to iolo.trevail@port-elowen.example.');
    await registrar.tabTo(/^Invite$/);
    await registrar.press(Key.ENTER);
    await registrar.reads(/; 1 is invited; 33 have no account\.$/);
    await registrar.isAccessible();
  });

  it('chooses a password by the link of the message, and has their own sheets', async () => {
    await registrar.open('/school/1/period/4/outbox');
    await registrar.clickWords('Iolo Trevail');
    const letter = await registrar.sees('Choose your first password here').then((text) => text.getText());
    const [, path] = /(\/welcome\/\S+)/.exec(letter)!;
    await teacher.open(path!);
    await teacher.reads(/^Welcome, Iolo Trevail$/);
    await teacher.isAccessible();
    await teacher.type('New password', 'low-tide');
    await teacher.sees('at least 15 signs');
    await teacher.type('New password', passphrase);
    const again = await teacher.type('The same again', passphrase);
    await again.sendKeys(Key.ENTER);
    await teacher.reads(/Quarter 2/);
    expect(await teacher.texts('nav[aria-label=Steps] a')).toEqual([
      expect.stringMatching(/^Grade sheets/),
      'Receipts',
    ]);
    await teacher.open(path!);
    await teacher.reads(/^This link cannot be used$/);
    await teacher.isAccessible();
  });

  it('changes the password, and is let in no more while at work', async () => {
    await teacher.open('/');
    await teacher.reads(/Quarter 2/);
    await teacher.tabTo(/menu$/);
    await teacher.press(Key.ENTER);
    await teacher.click('Change password');
    await teacher.type('Present password', passphrase);
    await teacher.type('New password', 'five lamps on one boat');
    const again = await teacher.type('The same again', 'five lamps on one boat');
    await teacher.isAccessible();
    await again.sendKeys(Key.ENTER);
    await teacher.sees('Your password is changed.');
    await registrar.open('/school/1/period/4/accounts?state=active');
    await registrar.clickWords('Trevail, Iolo');
    await registrar.click('Deactivate');
    await registrar.sees('Trevail, Iolo cannot sign in any more.');
    await teacher.driver.navigate().refresh();
    await teacher.sees('Sign-in name');
  });
});
