import { By, Key } from 'selenium-webdriver';
import { beforeAll, expect, it } from 'vitest';
import { signInAsRegistrar, twoAtDemo } from './at-wombat.js';
import { story } from './desk.js';

/* A registrar changes how grades are calculated and asks how one came about; a teacher keeps a grade book. */

const [registrar, teacher] = twoAtDemo();
beforeAll(() => signInAsRegistrar(registrar));

story('a policy', () => {
  it('is a few sentences beside a real section, whose numbers change as it changes', async () => {
    await registrar.click('Calculation');
    await registrar.reads(/185 grade books of Quarter 2 are calculated by 3 policies/);
    await registrar.click('Numbers and Charts');
    await registrar.sees('Change the policy and these numbers change with it.');
    await registrar.sees('dropping 1 raises 20 of 20 students, by 0.5 points on average');
    await registrar.isAccessible();
    await registrar.choose('Drop lowest of Tests', '1');
    await registrar.sees('The draft changes 18 percentages and 10 labels here.');
    await registrar.type('Weight of Tests', '4x');
    await registrar.sees('The numbers return when every number of the policy can be read.');
    await registrar.canPress('Preview and save', false);
    await registrar.type('Weight of Tests', '50');
    await registrar.sees('The weights add up to 110, not 100; each counts as its share of 110.');
    await registrar.type('Weight of Tests', '40');
    await registrar.sees('The draft changes 18 percentages and 10 labels here.');
    await registrar.picture('policy');
  });

  it('shows what it would do to every section before it is saved, and can be undone', async () => {
    await registrar.click('Preview and save');
    await registrar.sees('grades of Quarter 2 in 31 sections');
    await registrar.isAccessible();
    await registrar.picture('policy-effect');
    await registrar.click('Save it');
    await registrar.pointsAt('The calculation of Numbers and Charts is saved.');
    await registrar.click('Undo');
    await registrar.sees('Undone: save the calculation.');
  });

  it('saved, it is calculated through; posted grades stay, and are listed where the book says otherwise', async () => {
    await registrar.choose('Drop lowest of Tests', '1');
    await registrar.sees('The draft changes 18 percentages and 10 labels here.');
    await registrar.save();
    await registrar.sees('grades of Quarter 2 in 31 sections');
    await registrar.save();
    await registrar.sees('The calculation of Numbers and Charts is saved.');
    await registrar.click('Differs from computed');
    await registrar.reads(/\d{3} posted grades of Quarter 2 are not what the grade book computes/);
    await registrar.sees('Chart and Compass Mathematics 5');
    await registrar.isAccessible();
  });

  it('stands beside those of the other sections of a course, and may be given to them', async () => {
    await registrar.click('Sections side by side');
    await registrar.reads(/The 7 sections of\s+Reading the Coast.*differ in 3 matters/s);
    await registrar.isAccessible();
    await (
      await registrar.driver.findElements(By.xpath("//button[starts-with(normalize-space(),'Give it to others')]"))
    )[2]!.sendKeys(Key.ENTER);
    await registrar.sees('Calculate others like Reading the Coast 3');
    await registrar.tick('Reading the Coast 4');
    await registrar.sees('now from the school; it would change');
    await registrar.picture('copy-policy');
    await registrar.click('Give it to 1 section');
    await registrar.sees('1 section calculated like Reading the Coast 3.');
    await registrar.reads(/differ in 3 matters/);
  });

  it('a category that is used says so rather than go, and a new one is added', async () => {
    await registrar.click('Policies');
    await registrar.click('Categories');
    await registrar.click('Remove Quizzes');
    await registrar.click('Save the categories');
    await registrar.sees('Quizzes is used by');
    await registrar.click('Cancel');
    await registrar.click('Categories');
    await registrar.click('Add a category');
    await registrar.type('Name of category 5', 'Projects');
    await registrar.isAccessible();
    await registrar.picture('categories');
    await registrar.click('Save the categories');
    await registrar.sees('The categories are saved.');
    await registrar.sees('Not in it:');
  });
});

story('a semester grade', () => {
  it('tells how it came about, down to a single score', async () => {
    await registrar.open('/school/1/period/2/grade-sheets/1/102');
    await registrar.reads(/Semester grade of Semester 1 for Shore Life 1/);
    await registrar.pressOnPage('w');
    await registrar.sees('Made of its parts');
    await registrar.click('Quarter grade, Quarter 2');
    await registrar.sees('From the grade book of Shore Life 1: weighted by category, by points within each');
    await registrar.sees('Class work 1');
    await registrar.sees('Together, exact');
    await registrar.sees('Rounded once, half up to 1 decimal');
    await registrar.picture('semester-workings');
    const drawer = await registrar.driver.findElement(By.css('aside[aria-label=Workings]')).getText();
    expect(drawer).toMatch(/Tests 1\s+74\.5 \/ 100\s+due/);
    await registrar.click('Semester grade');
    await registrar.sees('Made of its parts');
  });
});

story('a grade book', () => {
  const enter = (...keys: string[]) => teacher.press(...keys);
  it('is opened from its sheet by the teacher, typed into, and calculated at once', async () => {
    await teacher.open('/');
    await teacher.click('Harun Nance');
    await teacher.reads(/Posting Quarter grade/);
    await teacher.open('/school/1/period/4/grade-sheets/13/1');
    await teacher.click('Grade book');
    await teacher.reads(/The grade book of Number and Measure 6 for Quarter 2 averages/);
    await teacher.isAccessible();
    await teacher.goToCell(0, 'Tests 1');
    await enter('1', '9', Key.ENTER, 'i', Key.ENTER, '9', '9', Key.ENTER);
    await teacher.reads(/1 student is blocked.*3 unsaved, 1 cannot be saved yet/s);
    await teacher.sees('It is out of 20. Points beyond that belong in an assignment that is marked extra.');
    await teacher.canPress('Save 3', false);
    await teacher.click('Undo last step');
    await teacher.reads(/2 unsaved/);
    await teacher.picture('grade-book');
    await teacher.save();
    await teacher.sees('2 scores saved.');
    await teacher.seesNot('unsaved');
  });

  it('takes an assignment for some students, fills it, and leaves the others alone', async () => {
    await teacher.click('New assignment');
    await teacher.type('Name', 'Sextant');
    await teacher.tick('For everybody in the section');
    await teacher.tick('Amsel, Iolo');
    await teacher.isAccessible();
    await teacher.click('Add it');
    await teacher.sees('Sextant is added to ');
    await teacher.click('Fill empty cells…');
    await teacher.choose('Assignment', 'Sextant');
    await teacher.type('Points, or missing, late, incomplete, exempt, absent, collected', '15');
    await teacher.click('Fill 1');
    await teacher.reads(/\d+ unsaved/);
    await teacher.cellHolds(0, 'Sextant', '·');
    await teacher.cellHolds(1, 'Sextant', '15');
    await teacher.save();
    await teacher.sees('scores saved.');
  });

  it('asks before unsaved scores are left, and its sheet says who is blocked', async () => {
    await teacher.goToCell(3, 'Tests 1');
    await enter('1', '2', Key.ENTER);
    await teacher.click('Grade sheets');
    await teacher.sees('not saved yet');
    await teacher.click('Leave and discard them');
    await teacher.open('/school/1/period/4/grade-sheets/13/1');
    await teacher.sees('Tests 1');
  });

  it('is read by the registrar, found by search, and shows the standing of levels', async () => {
    await registrar.open('/school/2/period/13/grade-books/207?view=standing');
    await registrar.reads(/The grade book of Making, year 1 · section 1 for Trimester 2 averages/);
    await registrar.sees('students at 3 or above');
    await registrar.isAccessible();
    await registrar.pressOnPage('/');
    await registrar.press('Number and Measure 6');
    await registrar.sees('Grade books');
  });
});
