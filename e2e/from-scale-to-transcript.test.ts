import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { By, Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { atDemo } from './at-wombat.js';
import { story } from './desk.js';

const files = fileURLToPath(new URL('../demo/files/', import.meta.url));
const quarter2 = '/school/1/period/4';

const { desk, place } = atDemo();

story('a registrar takes Quarter 2 from the scale to the transcript', () => {
  it('signs in; a wrong password says so and keeps the name', async () => {
    await desk.open('/');
    await desk.sees('People of the demo district');
    await desk.isAccessible();
    await desk.type('Sign-in name', 'morwenna');
    await desk.type('Password', 'high-tide');
    await desk.click('Sign in');
    await desk.sees('No account has this name with this password.');
    await desk.holds('Sign-in name', 'morwenna');
    await desk.type('Password', 'low-tide');
    await desk.click('Sign in');
    await desk.reads(
      /178 of 185 sections are complete for Quarter 2; 7 are not, and the window closes Friday at 17:00/,
    );
    await desk.isAccessible();
    await desk.picture('today');
  });

  it('steps along the term line and finds a screen by key', async () => {
    await desk.pressOnPage('[');
    await desk.reads(/Quarter 1 is sealed/);
    await desk.pressOnPage(']');
    await desk.reads(/for Quarter 2/);
    await desk.pressOnPage('?');
    await desk.sees('Keys of this screen');
    await desk.press(Key.ESCAPE);
    await desk.seesNot('Keys of this screen');
    await desk.pressOnPage('/');
    await desk.press('scal', Key.ENTER);
    await desk.reads(/Letter scale is in force in 48 courses/);
  });

  it('moves a cut-off on the ruler by key and by pointer, and saves the next version', async () => {
    await desk.isAccessible();
    const cutOff = () => desk.driver.findElement(By.css('[aria-label="Cut-off of A-"]'));
    await cutOff().then((grip) => grip.sendKeys(Key.ARROW_LEFT.repeat(5)));
    await desk.reads(/the draft would move \d+ up/);
    await desk.eventually(() => cutOff().then((grip) => grip.getAttribute('aria-valuenow')), '89.5');
    await desk.sees('89.44');
    await desk.type('Cut-off of B+', '83');
    await desk.sees('B and B+ both begin at 83.0');
    await desk.canPress('Preview and save', false);
    await desk.picture('scales-fault');
    await desk.type('Cut-off of B+', '87');
    await desk.driver
      .actions()
      .dragAndDrop(await desk.driver.findElement(By.css('[aria-label="Cut-off of D"]')), { x: 12, y: 0 })
      .perform();
    const cutOffOfD = () =>
      desk.driver.findElement(By.css('[aria-label="Cut-off of D"]')).then((grip) => grip.getAttribute('aria-valuenow'));
    await desk.eventually(async () => Number(await cutOffOfD()) > 60, true);
    await desk.type('Cut-off of D', '60');
    await desk.picture('scales');
    await desk.click('Preview and save');
    await desk.sees('would change their');
    await desk.sees('From the label now, to the label it would have');
    await desk.sees('looked at in');
    await desk.isAccessible();
    await desk.picture('scales-effect');
    await desk.click('Save as version 2 from Quarter 2 on');
    await desk.sees('Version 2 is used from Quarter 2 on.');
  });

  it('sees what a change of the rule would do before it is made', async () => {
    await desk.click('Report items');
    await desk.reads(/48 courses report 4 items by 4 rules and 2 exceptions; none on transcripts is without/);
    await desk.isAccessible();
    await desk.choose('Length', 'year-long');
    await desk.sees('12 courses');
    await desk.sees('would no longer report Quarter grade');
    await desk.sees('would no longer show on sheets and reports');
    await desk.picture('report-items');
    await desk.click('Discard');
    await desk.choose('Department', 'Letters');
    await desk.click('Save rules and exceptions');
    await desk.reads(/42 courses have nothing for the transcript/);
    await desk.click('Undo');
    await desk.reads(/none on transcripts is without/);
  });

  it('is told what is wrong with files that are no tables', async () => {
    await desk.click('Files');
    await desk.reads(/1 file is imported for Quarter 2/);
    await desk.isAccessible();
    const give = async (name: string, bytes: Buffer) => {
      writeFileSync(join(place.wombat.folder, name), bytes);
      await desk.driver.findElement(By.css('input[type=file]')).sendKeys(join(place.wombat.folder, name));
    };
    await give('picture.csv', Buffer.from('89504e470d0a1a0a0000', 'hex'));
    await desk.sees('picture.csv is a picture; a CSV or XLSX export is needed.');
    await give('empty.csv', Buffer.alloc(0));
    await desk.sees('empty.csv has no rows.');
    await give('one-column.csv', Buffer.from('Total\n80\n90\n'));
    await desk.sees('one-column.csv has no row that names at least two columns');
  });

  it.each([
    ['tidal-ecology-1.csv', 'Tidal Ecology 1', /brings percentages of Quarter grade: 20 new and 0 changed\./],
    ['harbour-history-2.csv', 'Harbour History 2', /brings percentages of Quarter grade: 20 new and 0 changed\./],
    [
      'boatbuilding-1-with-faults.csv',
      'Boatbuilding 1',
      /brings percentages of Quarter grade: \d+ new and 0 changed; 8 values are skipped/,
    ],
  ])('takes in %s after seeing every row', async (file, section, headline) => {
    await desk.open(`${quarter2}/files`);
    await desk.reads(/imported for Quarter 2/);
    await desk.driver.findElement(By.css('input[type=file]')).sendKeys(files + file);
    await desk.reads(new RegExp(`For ${section} this file`));
    await desk.reads(headline);
    if (section === 'Boatbuilding 1') {
      await desk.isAccessible();
      await desk.picture('files');
      for (const outcome of [
        'unknown student',
        'not in the section',
        'withdrawn',
        'out of range',
        'not a percentage',
        'twice in the file',
      ])
        await desk.sees(outcome);
    }
    await desk.click('Accept');
    await desk.reads(new RegExp(`Imported for ${section}`));
  });

  it('posts the section by key: a percent fills its label, a code empties the percentage, nothing is lost by a reload', async () => {
    await desk.click('Open the grade sheet');
    await desk.reads(/Posting Quarter grade of Quarter 2 for Boatbuilding 1: 0 of 19 done/);
    await desk.isAccessible();
    const [first, second] = await desk.texts('[role=rowheader]');
    await desk.typeInCell(first!, 'Posted %', '9x');
    await desk.sees('A percentage is a number such as 86.4.');
    await desk.typeInCell(first!, 'Posted %', '89,46');
    await desk.seesNot('A percentage is a number such as 86.4.');
    await desk.cellHolds(first!, 'Label', 'A−');
    await desk.typeInCell(first!, 'Label', 'inco');
    await desk.cellHolds(first!, 'Posted %', '');
    await desk.sees('INC needs a last date of attendance.');
    await desk.typeInCell(first!, 'Last date', '16 jan');
    await desk.seesNot('INC needs a last date of attendance.');
    await desk.typeInCell(second!, 'Comment', 'Careful with the plane.');
    await desk.reads(/2 unsaved/);
    await desk.driver.navigate().refresh();
    await desk.reads(/2 unsaved/);
    await desk.click('Use computed for');
    await desk.picture('grade-sheet');
    await desk.click('Fill empty cells…');
    await desk.type('Percentage, label or code', 'EXM');
    await desk.press(Key.ENTER);
    await desk.reads(/19 of 19 done.*19 unsaved/);
    await desk.save();
    await desk.sees('19 grades saved.');
    await desk.sees('Receipts');
    await desk.pressOnPage('w');
    await desk.sees('Workings');
    await desk.sees('boatbuilding-1-with-faults.csv');
    await desk.picture('workings');
    await desk.press(Key.ESCAPE);
  });

  it('posts the other sections that have blanks', async () => {
    for (let left = 6; left > 0; left--) {
      await desk.click('Grade sheets');
      await desk.reads(new RegExp(`, ${left} ha(s|ve) blanks`));
      if (left === 6) await desk.isAccessible();
      await desk.click('Open the next sheet with blanks');
      await desk.reads(/Posting Quarter grade/);
      await desk.click('Use computed for');
      await desk.save();
      await desk.reads(/: (\d+) of \1 done(?!.*unsaved)/);
    }
  });

  it('audits, opens each grade from its finding, mends it, and the finding is gone', async () => {
    await desk.click('Findings');
    await desk.reads(/has not been audited yet/);
    await desk.click('Audit now');
    await desk.reads(/12 findings block the seal of Quarter 2/);
    await desk.isAccessible();
    await desk.picture('findings');
    for (let left = 12; left > 0; left--) {
      const finding = await desk.driver.findElement(By.css('section[aria-label=Evidence]')).getText();
      const student = finding.split(' · ')[0]!;
      await desk.pressOnPage(Key.ENTER);
      await desk.reads(/Posting Quarter grade/);
      await takeBack();
      await mend(student, finding);
      await desk.save();
      await desk.reads(/^Posting(?!.*unsaved)/); // the notice of the save before may still be there
      await desk.click('Findings');
      await desk.reads(/changed after it/);
      // It is gone at once; the audit then says so as well.
      const standing = left > 1 ? `${left - 1} findings? blocks? the seal` : 'Nothing blocks the seal';
      await desk.reads(new RegExp(`${standing}.*By now, .* gone`));
      await desk.pressOnPage('a');
      await desk.reads(new RegExp(`${standing}(?!.*changed after it).* gone`));
    }
  });

  it('closes the audit with a certificate', async () => {
    await desk.pressOnPage('c');
    await desk.sees('Issue a certificate of Quarter 2?');
    await desk.isAccessible();
    await desk.click('Issue the certificate');
    await desk.sees('Audited grades');
  });

  it('seals the quarter', async () => {
    await desk.click('Seal');
    await desk.reads(/Quarter 2 is ready to be sealed/);
    await desk.isAccessible();
    await desk.click('Seal Quarter 2…');
    await desk.sees('The grades are copied to the transcripts as they stand now.');
    await desk.clickOn('[role=dialog] button');
    await desk.reads(/Quarter 2 was sealed/);
    await desk.picture('seal');
  });

  it('reads a transcript with credits and both averages, and asks how they came about', async () => {
    await desk.pressOnPage('/');
    await desk.sees('Screens');
    await desk.press('students', Key.ENTER);
    await desk.reads(/560 students of Upper School/);
    await desk.isAccessible();
    await desk.clickOn('tbody tr');
    await desk.reads(/has a GPA of \d\.\d{3}, weighted \d\.\d{3}, over 2 sealed periods/);
    await desk.isAccessible();
    await desk.pressOnPage('w');
    await desk.sees('Points times credits');
    const average = /weighted (\d\.\d{3})/.exec(await desk.headline())![1]!;
    const lines = await desk.texts('aside dl > div');
    expect(lines.at(-1)).toContain(average);
    // The sum on paper, added up again from the lines that it shows.
    const figures = lines.slice(0, -3).map((line) => Number(/\d+\.\d+/.exec(line)![0]));
    const credits = Number(/\d+\.\d+/.exec(lines.at(-2)!)![0]);
    expect(figures.reduce((sum, figure) => sum + figure, 0) / credits).toBeCloseTo(Number(average), 3);
    await desk.picture('transcript');
  });
});

/** What is signed off takes no grade: who mends it takes the sign-off back first. */
async function takeBack(): Promise<void> {
  const [button] = await desk.driver.findElements(By.xpath("//button[normalize-space()='Take back the sign-off']"));
  if (!button) return;
  await button.click();
  await desk.seesNot('Take back the sign-off');
}

/** What a registrar does about a finding on the opened grade. */
async function mend(student: string, finding: string): Promise<void> {
  const retype = async (column: string) => {
    await desk.goToCell(student, column);
    await desk.press(Key.F2, ' ', Key.ENTER);
  };
  if (/Percent and label disagree|Label not on the scale/.test(finding)) await retype('Posted %');
  else if (/Code with a percentage/.test(finding)) await retype('Label');
  else if (/Last date needed/.test(finding))
    await desk.typeInCell(student, 'Last date', /^NVA/m.test(finding) ? '10 nov' : '16 jan');
  else if (/withdrawn student/.test(finding)) await desk.typeInCell(student, 'Posted %', '');
  else throw new Error(`no way to mend: ${finding}`);
}
