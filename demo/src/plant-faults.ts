import { listedName, partsOfName } from '#core/people';
import { decimalOrThrow, roundHalfUp, unitsAt } from '#core/numbers';
import { findBand } from '#core/scales';
import type { District, GradeRow } from './district.js';
import { bandsOf, openPeriodId } from './draw-grades.js';
import { nameOf } from './policies.js';
import type { Random } from './random.js';
import { upper } from './schools.js';

/** A fault that was put into the demo on purpose. `rule` names the audit rule that finds it. */
export interface PlantedFault {
  readonly rule: string;
  readonly what: string;
  /** Null where it is about a course or an item. */
  readonly section: string | null;
  readonly student: string | null;
  /** The course or the report item that it is about, where it is about one. */
  readonly course?: string;
  readonly item?: string;
  readonly period: string;
}

const period = 'Quarter 2';

/** Puts faults into the posted grades of the open quarter, each into another section, and tells which. */
export function plantFaults(district: District, random: Random): PlantedFault[] {
  const faults: PlantedFault[] = [];
  const next = gradesOfFreshSections(district, random);
  const plant = (
    rule: string,
    what: string,
    change: (grade: GradeRow) => void,
    fits: (grade: GradeRow) => boolean = isOrdinary,
  ) => {
    const grade = next().find(fits)!;
    change(grade);
    faults.push({ rule, what, ...placeOf(district, grade), period });
  };
  const labels = upper.scale.bands.map(([label]) => label);
  const labelAbove = (grade: GradeRow) => labels[labels.indexOf(grade.label!) - 1]!;

  for (let count = 0; count < 3; count++) {
    plant(
      'percent-and-label-disagree',
      'the label is one step above what the percent gives',
      (grade) => {
        Object.assign(grade, { label: labelAbove(grade), isOverride: true });
      },
      (grade) => isOrdinary(grade) && labels.indexOf(grade.label!) > 0,
    );
  }
  for (const label of ['S', 'E']) {
    plant('label-not-on-scale', `the label ${label} belongs to no letter scale`, (grade) =>
      Object.assign(grade, { label, isOverride: true }),
    );
  }
  plant('code-with-percent', 'exempt, with the percent left beside it', (grade) =>
    Object.assign(grade, { label: null, code: 'EXM' }),
  );
  plant('code-with-percent', 'incomplete with a date, and the percent left beside it', (grade) =>
    Object.assign(grade, { label: null, code: 'INC', lastDate: '2026-01-16' }),
  );
  plant('last-date-needed', 'incomplete without a last date', (grade) =>
    Object.assign(grade, { percent: null, label: null, code: 'INC' }),
  );
  plant('last-date-needed', 'incomplete with a placeholder for the last date', (grade) =>
    Object.assign(grade, { percent: null, label: null, code: 'INC', lastDate: '1899-12-30' }),
  );
  plant('last-date-needed', 'never attended, with a date before the quarter', (grade) =>
    Object.assign(grade, { percent: null, label: null, code: 'NVA', lastDate: '2025-10-02' }),
  );
  for (let count = 0; count < 2; count++) {
    plant('grade-on-withdrawn-student', 'withdrawn in December, yet graded', (grade) => {
      district.enrollments.find(({ id }) => id === grade.enrollmentId)!.withdrawnOn = '2025-12-12';
    });
  }
  for (let count = 0; count < 4; count++) {
    plant('grade-missing', 'nothing is posted', (grade) => {
      Object.assign(grade, { percent: null, label: null, comment: '', computedThen: null });
    });
  }
  plant('comment-names-another-student', 'a comment that names another student of the section', (grade) => {
    const { student } = placeOf(district, next()[0]!);
    grade.comment = `${partsOfName(student).given} helped a great deal.`;
  });
  plant('posted-outside-window', 'posted before the window opened', (grade) =>
    Object.assign(grade, { postedAt: '2026-01-09T15:20:00.000Z' }),
  );
  plant('override-without-reason', 'posted percent far from the computed one, without a reason', (grade) =>
    Object.assign(grade, { percent: '95.0', label: 'A' }),
  );
  faults.push(plantOneValueForAll(district, next()), plantCrowding(district, next()));
  plant('last-date-not-needed', 'a last date beside a passing grade', (grade) => {
    grade.lastDate = '2026-01-16';
  });
  plant(
    'computed-changed-since-posted',
    'the grade book comes to more than it did when the grade was posted',
    (grade) =>
      Object.assign(grade, {
        computedThen: '31.5',
        percent: '31.5',
        label: 'F',
        overrideReason: 'Posted as it stood then.',
      }),
  );
  plant('comment-too-long', 'a comment longer than the report card has room for', (grade) => {
    grade.comment =
      'Steady and exact in the field book, quick with a question, and always ready to help at the bench when asked to.';
  });
  plant('zero-posted', 'a zero where the grade book has work', (grade) =>
    Object.assign(grade, {
      percent: '0.0',
      label: 'F',
      isOverride: true,
      overrideReason: 'As agreed with the office.',
    }),
  );
  plant('internal-note-public', 'a note for colleagues that families would read', (grade) => {
    grade.comment = 'Internal: the counsellor’s letter is still to come.';
  });
  plant('comment-unfinished', 'a comment with a gap left to be filled in', (grade) => {
    grade.comment = 'Reads with growing care; XXX.';
  });
  return faults;
}

/** Puts faults into grade books that stay as they are, each into another section. None changes what a book comes to. */
export function plantBookFaults(district: District): PlantedFault[] {
  const scored = new Set(district.scores.map(({ assignmentId }) => assignmentId));
  const open = district.assignments.filter(({ id, periodId }) => periodId === openPeriodId && scored.has(id));
  const sections = [...new Set(open.map(({ sectionId }) => sectionId))].toSorted((a, b) => a - b);
  const plant = (rule: string, what: string, change: (assignment: (typeof open)[number]) => void): PlantedFault => {
    const sectionId = sections.pop()!;
    change(open.find((each) => each.sectionId === sectionId)!);
    return { rule, what, section: sectionNameOf(district, sectionId), student: null, period };
  };
  return [
    plant('due-outside-period', 'an assignment due in the quarter before', (assignment) => {
      assignment.dueOn = '2025-11-03';
    }),
    plant('scored-not-published', 'an assignment with scores that was never published', (assignment) => {
      assignment.isPublished = false;
    }),
  ];
}

function isOrdinary({ percent, code, comment }: GradeRow): boolean {
  return percent !== null && code === null && comment === '';
}

/** Gives the grades of one untouched section after the other. */
function gradesOfFreshSections(district: District, random: Random): () => GradeRow[] {
  const sectionOf = new Map(district.enrollments.map(({ id, sectionId }) => [id, sectionId]));
  const bySection = new Map<number, GradeRow[]>();
  for (const grade of district.grades.filter(({ periodId }) => periodId === openPeriodId)) {
    const section = sectionOf.get(grade.enrollmentId)!;
    bySection.set(section, [...(bySection.get(section) ?? []), grade]);
  }
  const fresh = random.shuffle([...bySection.values()]);
  return () => fresh.pop()!;
}

/** Where a grade stands, as lists name it. */
export function placeOf(district: District, grade: Pick<GradeRow, 'enrollmentId'>) {
  const enrollment = district.enrollments.find(({ id }) => id === grade.enrollmentId)!;
  const {
    familyName: family,
    givenName: given,
    preferredName,
  } = district.people.find(({ id }) => id === enrollment.studentId)!;
  const student = listedName({ family, given, preferred: preferredName ?? null });
  return { section: sectionNameOf(district, enrollment.sectionId), student };
}

function sectionNameOf(district: District, sectionId: number): string {
  return nameOf(
    district,
    district.sections.find(({ id }) => id === sectionId)!,
  );
}

function plantOneValueForAll(district: District, grades: readonly GradeRow[]): PlantedFault {
  for (const grade of grades) Object.assign(grade, { percent: '85.0', label: 'B' });
  return {
    rule: 'one-value-for-all',
    what: 'one value for the whole section',
    section: placeOf(district, grades[0]!).section,
    student: null,
    period,
  };
}

/** Everybody just below a cut-off is lifted onto it. */
function plantCrowding(district: District, grades: readonly GradeRow[]): PlantedFault {
  const precision = { digits: upper.item.digits, rounding: roundHalfUp };
  for (const grade of grades.filter(isOrdinary)) {
    const lifted = { units: unitsAt(decimalOrThrow(grade.percent!), 2) + 150n, digits: 2 };
    const { band } = findBand(bandsOf(upper), lifted, precision);
    if (band && band.label !== grade.label)
      Object.assign(grade, { percent: `${band.lowest.units}.0`, label: band.label });
  }
  return {
    rule: 'crowding-above-cut-off',
    what: 'grades crowd just above the cut-offs',
    section: placeOf(district, grades[0]!).section,
    student: null,
    period,
  };
}
