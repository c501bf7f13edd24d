import { createHash } from 'node:crypto';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { entryRulesFor, mostPercent, noMark, takeComputed } from '#core/posting';
import type { Band } from '#core/scales';
import { noOutcomes } from '#core/files';
import type { District, EnrollmentRow, GradeRow, SectionRow } from './district.js';
import { exportedPercent, groupBySection, reportedPeriods, type CalculatedPercents } from './draw-scores.js';
import type { Random } from './random.js';
import type { PeriodPlan, SchoolPlan } from './school-plan.js';
import { demoNow, planOf, upper } from './schools.js';

const comments = [
  'Steady and exact in the field book.',
  'Asks good questions; finish what is begun.',
  'A strong quarter.',
  'Practise a little every day.',
  'Works well with others at the bench.',
];

/** The quarter that is being posted when the demo begins. */
export const openPeriodId = 4;

/** Sections whose totals still lie in the files of demo/files; nothing is posted for them yet. */
export function fileSections(district: District): SectionRow[] {
  const section = (title: string, number: number) => {
    const course = district.courses.find((each) => each.title === title)!;
    return district.sections.find((each) => each.courseId === course.id && each.number === number)!;
  };
  return [section('Tidal Ecology', 1), section('Harbour History', 2), section('Boatbuilding', 1)];
}

const platformDepartments = new Set(['Voice and Movement', 'Half-year courses']);

/** The sections whose grade books of the open quarter are kept on a learning platform, not in Wombat. */
export function platformSections(district: District): ReadonlySet<number> {
  const courses = new Set(
    district.courses.filter(({ department }) => platformDepartments.has(department)).map(({ id }) => id),
  );
  const own = district.sections.filter(({ courseId }) => courses.has(courseId));
  return new Set([...own, ...fileSections(district)].map(({ id }) => id));
}

/**
 * Posts what was calculated: all of the periods that are over, and of the open quarter all but the sections that wait for
 * their files. The totals of sections on the platform come from one export that was taken in.
 */
export function drawGrades(district: District, percents: CalculatedPercents, random: Random): void {
  postGrades(district, district.sections, percents, random);
  addExport(district);
}

/** The same for some sections. */
export function postGrades(
  district: District,
  sections: readonly SectionRow[],
  percents: CalculatedPercents,
  random: Random,
): void {
  const enrollments = groupBySection(district);
  const waiting = new Set(fileSections(district).map(({ id }) => id));
  const onPlatform = platformSections(district);
  for (const section of sections) {
    const plan = planOf(section);
    for (const period of reportedPeriods(plan, section.periodId).filter((each) => isPosted(each))) {
      if (period.id === openPeriodId && waiting.has(section.id)) continue;
      for (const enrollment of enrollments.get(section.id) ?? []) {
        const percent = valueOn(plan, percents.get(`${enrollment.id}/${period.id}`));
        if (percent === undefined || !takesGrade(enrollment, period)) continue;
        const isExported = period.id === openPeriodId && onPlatform.has(section.id);
        const computed = isExported ? exportedPercent(percent) : percent;
        if (isExported) addComputed(district, section, enrollment, computed);
        district.grades.push(gradeRow(plan, section, period, enrollment, computed, random));
      }
    }
  }
}

/** What a school posts: where its scale has levels, a level. Of four levels each is 25 %, so that nothing is rounded here. */
function valueOn({ scale }: SchoolPlan, percent: string | undefined): string | undefined {
  if (percent === undefined || scale.highestLevel === undefined) return percent;
  const { units, digits } = decimalOrThrow(percent);
  return formatDecimal({ units: units * 4n, digits: digits + 2 });
}

function isPosted({ id, endsOn }: PeriodPlan): boolean {
  return endsOn < demoNow.slice(0, 10) || id === openPeriodId;
}

function takesGrade({ withdrawnOn }: EnrollmentRow, { endsOn }: PeriodPlan): boolean {
  return withdrawnOn === null || withdrawnOn > endsOn;
}

function gradeRow(
  plan: SchoolPlan,
  section: SectionRow,
  period: PeriodPlan,
  enrollment: EnrollmentRow,
  computed: string,
  random: Random,
): GradeRow {
  const { highestLevel } = plan.scale;
  const scale = {
    bands: bandsOf(plan),
    highestLevel: highestLevel === undefined ? null : decimalOrThrow(highestLevel),
  };
  const item = { ...plan.item, rounding: 'halfUp', highestPercent: mostPercent } as const;
  const mark = takeComputed(noMark, decimalOrThrow(computed), entryRulesFor(scale, item, []));
  const fails =
    plan.item.failingNeedsLastDate && plan.scale.bands.find(([label]) => label === mark.label)?.[4] === false;
  return {
    itemId: plan.id,
    periodId: period.id,
    enrollmentId: enrollment.id,
    percent: formatDecimal(mark.percent!),
    label: mark.label,
    ...bareGrade,
    lastDate: fails ? period.endsOn : null,
    hours: fails && plan.item.asksHours ? '32' : null,
    comment: random.chance(0.12) ? random.pick(comments) : '',
    computedThen: computed,
    scaleVersionId: plan.id,
    postedBy: section.teacherId,
    postedAt: postingInstant(period, random),
  };
}

/** What a grade has that only a percentage and its label are posted of. */
export const bareGrade = {
  code: null,
  lastDate: null,
  hours: null,
  comment: '',
  isInternal: false,
  computedThen: null,
  isOverride: false,
  overrideReason: '',
} as const;

/** Within the window, and no later than the demo's beginning. */
function postingInstant({ window }: PeriodPlan, random: Random): string {
  const opensAt = Date.parse(window![0]);
  const until = Math.min(Date.parse(window![1]), Date.parse(demoNow) - 3_600_000);
  return new Date(opensAt + Math.floor(((until - opensAt) * random.whole(0, 999)) / 1000)).toISOString();
}

export function bandsOf({ scale }: SchoolPlan): Band[] {
  return scale.bands.map(([label, lowest, points, descriptor, passes]) => ({
    label,
    lowest: decimalOrThrow(lowest),
    points: points === null ? null : decimalOrThrow(points),
    descriptor,
    passes,
    earnsCredit: passes,
    isOff: false,
  }));
}

const exportId = 1;
const exportHeader = ['Student number', 'Section', 'Course total (%)'];

function addComputed(district: District, section: SectionRow, enrollment: EnrollmentRow, percent: string): void {
  const student = district.people.find(({ id }) => id === enrollment.studentId)!;
  const course = district.courses.find(({ id }) => id === section.courseId)!;
  const importRow = district.fileRowOutcomes.length + 2;
  const line = { importId: exportId, row: importRow, itemId: upper.id, enrollmentId: enrollment.id };
  district.fileRowOutcomes.push({
    ...line,
    outcome: 'new',
    givenId: student.sourcedId,
    givenSection: `${course.title} ${section.number}`,
    value: percent,
    after: percent,
  });
  district.computedGrades.push({
    itemId: upper.id,
    periodId: openPeriodId,
    enrollmentId: enrollment.id,
    percent,
    importId: exportId,
    importRow,
  });
}

/** The export of all sections, as it was taken in the evening before. */
function addExport(district: District): void {
  const taken = new Date('2026-01-20T19:05:00Z');
  const rows = district.fileRowOutcomes.map(({ givenId, givenSection, value }) => [givenId, givenSection!, value]);
  const text = Buffer.from([exportHeader, ...rows].map((cells) => `${cells.join(',')}\n`).join(''));
  const proposal = (column: number) => ({
    column,
    confidence: 100,
    reason: { code: 'percents', percents: rows.length, rows: rows.length } as const,
  });
  district.fileImports.push({
    id: exportId,
    schoolId: upper.id,
    periodId: openPeriodId,
    fileName: 'all-sections-quarter-2.csv',
    byteSize: text.length,
    sha256: createHash('sha256').update(text).digest('hex'),
    encoding: 'UTF-8',
    form: { encoding: 'utf8', delimiter: ',' },
    status: 'accepted',
    headerRow: 1,
    header: exportHeader,
    leadingRows: [exportHeader, ...rows.slice(0, 29)],
    sampleRows: rows.slice(0, 5),
    proposals: {
      id: proposal(0),
      sectionColumn: proposal(1),
      section: null,
      grades: [{ itemId: upper.id, proposal: proposal(2) }],
      doubts: [],
    },
    idColumn: 0,
    sectionColumn: 1,
    namedSections: {},
    rowCount: rows.length + 1,
    stepCount: 0,
    stepsDone: 0,
    planNumber: 1,
    plan: {
      counts: { ...noOutcomes(), new: rows.length },
      notInFile: { count: 0, names: [] },
      unknownSections: [],
    },
    readBy: 1,
    readAt: taken,
    acceptedBy: 1,
    acceptedAt: taken,
  });
  district.fileColumns.push({ importId: exportId, position: 2, itemId: upper.id });
  district.filePieces.push({ importId: exportId, piece: 0, bytes: `\\x${text.toString('hex')}` });
}
