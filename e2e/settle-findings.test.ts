import { it } from 'vitest';
import { Key } from 'selenium-webdriver';
import { atWombat } from './at-wombat.js';
import { story } from './desk.js';
import { startDemo } from './wombats.js';

/* What an audit found is settled by keyboard: set right by its rule, or let stand for a reason. */

const place = atWombat(1, startDemo);
const [registrar] = place.seats as [(typeof place.seats)[number]];

story('a registrar settles what an audit found', () => {
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
    await registrar.reads(/72 findings block the seal/);
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
});
