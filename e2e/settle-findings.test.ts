import { expect, it } from 'vitest';
import { Key } from 'selenium-webdriver';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* What an audit found is settled by keyboard: set right by its rule, let stand for a reason, or by the teacher who is told of it. */

const place = atWombat(2, startDemo);
const [registrar, teacher] = place.seats as [(typeof place.seats)[number], (typeof place.seats)[number]];

story('a registrar settles what an audit found', () => {
  /** The student whose finding the teacher is told of. */
  let told: string;

  it('what blocks the seal stands first, and what warns is told beside it', async () => {
    await registrar.open('/');
    await registrar.click('Morwenna Oake');
    await registrar.reads(/sections are complete/);
    await registrar.click('Findings');
    await registrar.reads(/has not been audited yet/);
    await registrar.pressOnPage('a');
    await registrar.reads(/75 findings block the seal of Quarter 2; \d+ warnings/);
    await registrar.isAccessible();
  });

  it('three labels are set by their percentages at once, after a look at each, with the sign-offs taken back', async () => {
    await registrar.clickWords('Percent and label disagree');
    await registrar.sees('Families read one and the GPA counts the other.');
    await registrar.pressOnPage('m');
    await registrar.sees('Set the label by the percentage?');
    await registrar.clickWords('the 2 other findings of “Percent and label disagree” too');
    await registrar.clickWords('signed-off');
    await registrar.isAccessible();
    await registrar.click('Set the label by the percentage for 3 grades');
    await registrar.sees('3 grades set right.');
    await registrar.pressOnPage('a');
    await registrar.reads(/72 findings block the seal(?!.*changed after it)/);
  });

  it('a finding is let stand for a reason, and counts no more', async () => {
    await registrar.click('Show all findings');
    await registrar.clickWords('Label not on the scale');
    await registrar.sees('A label that the scale does not know has no grade points');
    await registrar.pressOnPage('v');
    await registrar.sees('Let this finding stand?');
    await registrar.tabTo(/^Reason$/);
    await registrar.press('Agreed with the head of department.');
    await registrar.isAccessible();
    await registrar.tabTo(/^Waive$/);
    await registrar.press(Key.ENTER);
    await registrar.reads(/71 findings block the seal.*1 waived/);
    await registrar.sees('1 finding waived.');
  });

  it('what is about a section is opened at its grade book, and findings are gathered by teacher', async () => {
    await registrar.click('Show all findings');
    await registrar.clickWords('Assignments due outside the period');
    await registrar.sees('Argument and Assembly, honours 2');
    await registrar.view('Teacher');
    await registrar.isChosen('Teacher');
    await registrar.isAccessible();
    await registrar.view('Rule');
    await registrar.isChosen('Rule');
    await registrar.clickWords('Assignments due outside the period');
    await registrar.isChosen('Assignments due outside the period');
    await registrar.pressOnPage(Key.ENTER);
    await registrar.reads(/Argument and Assembly, honours 2/);
  });

  it('a teacher is told of what is theirs, sees it above the sheet, and sets it right', async () => {
    await registrar.click('Findings');
    await registrar.view('Teacher');
    await registrar.isChosen('Teacher');
    await registrar.clickWords('Nance, Harun');
    await registrar.isChosen('Nance, Harun');
    const [about] = await registrar.texts('[aria-label=Evidence] p');
    const [student, section] = about!.split(' · ');
    expect(section).toBe('Tidal Ecology 1');
    told = student!;
    await registrar.pressOnPage('t');
    await registrar.sees('Tell the teacher?');
    await registrar.isAccessible();
    await registrar.click('Send 1 message');
    await registrar.sees('1 message sent to the outbox.');
    await teacher.open('/');
    await teacher.click('Harun Nance');
    await teacher.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1: 0 of 20 done/);
    await teacher.sees('You were told on');
    await teacher.typeInCell(told, 'Posted %', '84');
    await teacher.save();
    await teacher.sees('1 grade saved.');
    await teacher.sees('all set right since');
    await teacher.isAccessible();
  });

  it('the registrar sees that it is gone, without another audit', async () => {
    await registrar.driver.navigate().refresh();
    await registrar.reads(/By now, 1 finding is gone/);
    await registrar.clickWords(told);
    await registrar.sees('the grade was saved since.');
    await registrar.sees('It is gone: what was changed after the audit was looked at again.');
    await registrar.isAccessible();
  });
});
