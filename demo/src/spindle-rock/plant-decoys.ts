import { partsOfName } from '#core/people';
import type { GradeRow } from '../district.js';
import { placeOf } from '../plant-faults.js';
import type { Planting } from './planting.js';
import { labelOf, wholeWork } from './draw-spindle-rock.js';
import { items, spindleRock } from './spindle-rock.js';

const agreed = { isOverride: true, overrideReason: 'As agreed with the office.' };
const noPercent = { percent: null, label: null };
const lastDay = '2025-12-19';
const failed = { label: 'F', lastDate: lastDay, hours: '32', comment: 'Please come and talk to us.', ...agreed };
const noCredit = { ...noPercent, code: 'NCR', hours: '24' };

/** What looks like a fault of a single grade and is right, each with another student. */
export function plantDecoysInGrades({ district, nextOf, gradesOf, decoy }: Planting): void {
  const plant = (section: string, rule: string, what: string, change: object | ((grade: GradeRow) => object)) => {
    const grade = nextOf(section);
    decoy(rule, what, Object.assign(grade, typeof change === 'function' ? change(grade) : change));
  };
  plant('Gull Counting 1', 'percent-and-label-disagree', '89.5, which rounds to 90, with an A', {
    percent: '89.5',
    label: 'A',
    ...agreed,
  });
  plant('Gull Counting 1', 'last-date-not-needed', 'a last date beside a failing grade, which needs it', {
    percent: '41',
    ...failed,
  });
  plant(
    'Gull Counting 1',
    'computed-changed-since-posted',
    'what was computed then rounds to what it does now',
    (grade) => ({
      computedThen: grade.percent,
    }),
  );
  plant('Knot Lore 1', 'last-date-needed', 'no credit, with the last day of the term', {
    ...noCredit,
    lastDate: lastDay,
  });
  plant('Knot Lore 1', 'placeholder-date', 'ones alone, and a day on which the student was there', {
    ...noCredit,
    lastDate: '2025-11-11',
  });
  plant('Knot Lore 1', 'code-switched-off', 'a code that the district uses', { ...noPercent, code: 'IPR' });
  plant('Driftwood Accounts 1', 'label-not-on-scale', 'a label of the scale, and no percentage', {
    percent: null,
    label: 'B',
    ...agreed,
  });
  plant('Driftwood Accounts 1', 'code-with-percent', 'failing at midterm, beside which a percentage may stand', {
    label: null,
    code: 'FAM',
  });
  plant('Charts of the Rock 1', 'comment-too-long', 'a comment as long as there is room for', {
    comment: 'Steady in the field book, quick with a question, and ready to help at the bench when asked to do so.',
  });
  plant('Charts of the Rock 1', 'comment-unfinished', 'a comment about what is to be done', {
    comment: 'Whatever was to do is done; the name of each chart (by hand) is still missing.',
  });
  plant('Charts of the Rock 1', 'zero-posted', 'next to nothing, and not nothing', { percent: '0.5', ...failed });
  plant('Signal Flags 1', 'comment-names-another-student', 'a comment that names the student', (grade) => ({
    comment: `${partsOfName(placeOf(district, grade).student).given} helps a great deal.`,
  }));
  plant('Signal Flags 1', 'internal-note-public', 'a note for colleagues that families do not read', {
    comment: 'Internal: the counsellor’s letter is still to come.',
    isInternal: true,
  });
  plant('Net Geometry 2', 'posted-outside-window', 'posted in the last minute of the window', {
    postedAt: '2026-01-13T16:59:00.000Z',
  });
  plant('Net Geometry 2', 'override-without-reason', 'far from what is computed, and it says why', {
    percent: '97',
    label: 'A',
    ...agreed,
  });
  const [honour] = gradesOf('First Words 1', items.readingAloud);
  Object.assign(honour!, { percent: '100', label: 'H' });
  decoy('label-without-points', 'the same label where it does not count in the GPA', honour!);
  plantProjects(gradesOf, decoy);
}

/** Projects of Stone Walls, with what the whole works come to. */
function plantProjects(gradesOf: Planting['gradesOf'], decoy: Planting['decoy']): void {
  const [projects, wholes, terms] = [items.project, items.wholeWork, items.termGrade].map((id) =>
    gradesOf('Stone Walls 1', id),
  );
  for (const [at, project] of projects!.entries()) {
    const percent = at === 0 ? '84' : '83';
    Object.assign(project, { percent, label: labelOf(percent) });
    const whole = wholeWork(Number(terms![at]!.percent), Number(percent));
    Object.assign(wholes![at]!, { percent: whole, label: labelOf(whole) });
  }
  decoy('one-value-for-all', 'thirteen of fourteen projects are alike', 'Stone Walls 1');
  decoy('grade-not-expected', 'a project of a course that has one', projects![0]!);
}

/** What looks like a fault of who sits where and is right. */
export function plantDecoysInSeats({ district, gradesOf, decoy }: Planting): void {
  const { enrollments, grades } = district;
  const seatOf = ({ enrollmentId }: GradeRow) => enrollments.findIndex(({ id }) => id === enrollmentId);
  const change = (grade: GradeRow, to: object) => {
    enrollments[seatOf(grade)] = { ...enrollments[seatOf(grade)]!, ...to };
  };
  const forget = (grade: GradeRow) => void grades.splice(grades.indexOf(grade), 1);
  const left = { withdrawnOn: '2025-11-14' };
  const blank = { ...noPercent, code: null, lastDate: null, hours: null, comment: '', computedThen: null };
  const [nothing, withdrawn] = gradesOf('Gull Counting 1').slice(-2);
  change(nothing!, left);
  decoy('grade-missing', 'nothing is posted of a student who left', Object.assign(nothing!, blank));
  decoy('signed-off-with-blanks', 'the one blank is that of a student who left', 'Gull Counting 1');
  change(withdrawn!, left);
  const code = { ...blank, code: 'WDR', lastDate: '2025-11-13', hours: '12' };
  decoy('grade-on-withdrawn-student', 'withdrawn, with the code for it', Object.assign(withdrawn!, code));

  const sameDay = gradesOf('Lamp Keeping 1').at(-1)!;
  change(sameDay, { enteredOn: '2025-11-24', withdrawnOn: '2025-11-24' });
  decoy('left-before-coming', 'came and left on the same day', sameDay);
  forget(sameDay);

  const [from, to] = [gradesOf('Net Geometry 1').at(-1)!, gradesOf('Net Geometry 2').at(-1)!];
  const { studentId } = enrollments[seatOf(from)]!;
  change(from, left);
  forget(from);
  change(to, { studentId, enteredOn: '2025-11-17' });
  decoy('enrolled-twice', 'left one section of the course for the other', to);
}

/** What looks like a fault of set-up, grade books or whole sheets and is right. */
export function plantDecoysInSetUp({ district, named, decoy }: Planting): void {
  const { assignments, courses } = district;
  const of = (section: string) => assignments.filter(({ sectionId }) => sectionId === named(section).id);
  of('First Words 1')[0]!.dueOn = lastDay;
  decoy('due-outside-period', 'an assignment due on the last day of the term', 'First Words 1');
  for (const assignment of of('Cloud Names 1')) if (!assignment.isCounted) assignment.isPublished = false;
  decoy('scored-not-published', 'scored and not published, and not meant to count', 'Cloud Names 1');
  const gulls = courses.find(({ schoolId, title }) => schoolId === spindleRock.id && title === 'Gull Counting')!;
  Object.assign(gulls, { credits: '0', onTranscript: false });
  decoy('course-without-credits', 'no credits, and not on the transcript', { course: 'Gull Counting' });
  decoy('calculation-not-set', 'its department says how it is calculated', 'Gull Counting 1');
  decoy('section-without-scale', 'the scale is that of its course', 'Harbour Talk 1');
  decoy('scale-with-gap', 'the scale of its department begins at 0', 'Gull Counting 1');
  decoy('item-without-window', 'expected in the term, with a window', { item: 'Project' });
  decoy('sheet-not-signed-off', 'signed off like the others', 'Gull Counting 1');
  decoy('round-numbers', 'five of twelve end in 0 or 5, as chance has it', 'Charts of the Rock 1');
  decoy('crowding-above-cut-off', 'as many lie just below cut-offs as just above', 'Gull Counting 1');
  decoy('unlike-sister-sections', 'differs from its sister section as chance has it', 'Net Geometry 1');
}
