import { expect, it } from 'vitest';
import { Key } from 'selenium-webdriver';
import { atWombat } from './at-wombat.js';
import { story, type Desk } from './desk.js';
import { startDemo } from './wombats.js';

/*
 * Seventy-five findings that block, from the audit to the certificate: mended by their rules, or let stand for a reason; and
 * the certificate that breaks when a grade changes, beside one of the courses that were ready first, which does not. Keys and clicks are counted: at three seconds for each, a quarter of an
 * hour is three hundred; it takes eighty-two.
 */

const most = 300;
const place = atWombat(1, startDemo);
const hands = { strokes: 0 };
/** What presses and clicks, counted: a key, a click, or a letter that is typed is one. */
const registrar = new Proxy({} as Desk, {
  get(_target, name: keyof Desk) {
    const act = place.seats[0]![name] as unknown as (...given: unknown[]) => unknown;
    if (typeof act !== 'function') return act;
    return async (...given: string[]) => {
      const answer = await act(...given);
      if (['click', 'clickWords', 'clickOn', 'view', 'tick', 'goToCell'].includes(name)) hands.strokes += 1;
      if (['press', 'pressOnPage'].includes(name)) hands.strokes += given.join('').length;
      if (name === 'tabTo') hands.strokes += Number(answer);
      return answer;
    };
  },
});

/** Chooses a rule and sets right what it can, of all that it found; says how many grades that is. */
async function mendAll(rule: string, fix: string, grades: string, isSignedOff = true): Promise<void> {
  await registrar.clickWords(rule);
  await registrar.isChosen(rule);
  await registrar.pressOnPage('m');
  await registrar.sees(`${fix}?`);
  await registrar.clickWords(`of “${rule}” too`);
  if (isSignedOff) await registrar.clickWords('signed-off');
  await registrar.click(`${fix} for ${grades}`);
  await registrar.sees('set right.');
}

/** Lets all stand that a rule found. */
async function waiveAll(rule: string, findings: number, reason: string): Promise<void> {
  await registrar.clickWords(rule);
  await registrar.isChosen(rule);
  await registrar.pressOnPage('v');
  await registrar.sees('Let this finding stand?');
  await registrar.clickWords(`of “${rule}” too`);
  await registrar.tabTo(/^Reason$/, true);
  await registrar.press(reason);
  await registrar.click(`Waive ${findings}`);
  await registrar.sees(`${findings} findings waived.`);
}

story('seventy-five findings become a certificate', () => {
  it('all that rules can set right is set right, rule by rule', async () => {
    await registrar.open('/');
    await registrar.click('Morwenna Oake');
    await registrar.reads(/sections are complete/);
    await registrar.click('Findings');
    await registrar.reads(/has not been audited yet/);
    hands.strokes = 0;
    await registrar.pressOnPage('a');
    await registrar.reads(/75 findings block the seal of Quarter 2/);
    await mendAll('Grade missing', 'Post what is computed', '4 grades', false);
    await mendAll('Percent and label disagree', 'Set the label by the percentage', '3 grades');
    await mendAll('Label not on the scale', 'Set the label by the percentage', '2 grades');
    await mendAll('Code with a percentage', 'Clear the percentage', '2 grades');
    await mendAll('Last date needed and missing', 'Set the last day present', '1 grade');
    await mendAll('Grade on a withdrawn student', 'Clear the grade', '2 grades');
    await registrar.pressOnPage('a');
    await registrar.reads(/61 findings block the seal of Quarter 2.*19 gone/);
  });

  it('the courses in which nothing blocks are certified before the rest is', async () => {
    await registrar.pressOnPage('c');
    await registrar.sees('Course, code or department');
    await registrar.isAccessible();
    await registrar.clickWords('Choose what is ready');
    await registrar.click('Issue the certificate');
    await registrar.sees('1 certificate of chosen courses.');
  });

  it('what only people can know is let stand for a reason, and the audit is closed', async () => {
    await waiveAll('Grade missing', 59, 'Posted on paper.');
    await waiveAll('Last date needed and missing', 2, 'Asked the teachers.');
    await registrar.reads(/Nothing blocks the seal of Quarter 2/);
    await registrar.isAccessible();
    await registrar.pressOnPage('c');
    await registrar.click('Issue the certificate');
    await registrar.sees('Certified');
    expect(hands.strokes).toBeLessThan(most);
  });

  it('what is gone says who saw to it', async () => {
    await registrar.click('19 gone');
    await registrar.sees('Morwenna Oake saved the grade');
    await registrar.isAccessible();
    await registrar.press(Key.ESCAPE);
  });

  it('a grade that changes breaks the certificate, visibly', async () => {
    await registrar.open(new URL(await registrar.driver.getCurrentUrl()).pathname.replace('findings', 'grade-sheets'));
    await registrar.clickWords('Tidal Ecology 1');
    await registrar.press(Key.ENTER);
    await registrar.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1/);
    await registrar.typeInCell(0, 'Posted %', '88');
    await registrar.save();
    await registrar.sees('1 grade saved.');
    await registrar.click('Findings');
    await registrar.sees('no longer holds');
    await registrar.sees('1 certificate of chosen courses.'); // the grade is of none of them
  });
});
