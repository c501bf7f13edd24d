import { formatDecimal } from '#core/numbers';
import type { District } from './district.js';
import {
  codes,
  collegeSetUp,
  primarySetUp,
  upperSetUp,
  type ChoiceScale,
  type MoreItem,
  type SetUpPlan,
} from './set-up-plans.js';
import type { SchoolPlan } from './school-plan.js';
import { college, primary, schoolPlans, upper } from './schools.js';

const plans: ReadonlyMap<SchoolPlan, SetUpPlan> = new Map([
  [upper, upperSetUp],
  [primary, primarySetUp],
  [college, collegeSetUp],
]);

/** Writes down what the plans say: schools, calendars, scales, items, rules, windows and courses. Nothing is by lot. */
export function writeSetUp(district: District): void {
  for (const plan of schoolPlans) writeSchool(district, plan, plans.get(plan)!);
  writeHonoursScale(district);
  codes.forEach(({ countsAs, ...code }, index) => {
    district.specialCodes.push({ ...code, countsAs: countsAs && formatDecimal(countsAs), position: index + 1 });
  });
}

export function writeSchool(district: District, plan: SchoolPlan, more: SetUpPlan): void {
  const { id, code, name, shortName } = plan;
  district.schools.push({ id, code, name, shortName, takesAttendance: plan.item.asksHours });
  for (const { window: _window, ...period } of plan.periods) district.periods.push({ ...period, schoolId: id });
  for (const [breakName, startsOn, endsOn] of more.breaks) {
    district.breaks.push({ id: district.breaks.length + 1, schoolId: id, name: breakName, startsOn, endsOn });
  }
  writeScale(district, plan);
  for (const scale of more.choiceScales) writeChoiceScale(district, plan, scale);
  writeItem(district, plan);
  for (const item of more.items) writeMoreItem(district, plan, item);
  plan.categories.forEach(([category], index) => {
    const place = { schoolId: id, sectionId: null, tint: index, position: index + 1 };
    district.categories.push({ ...place, id: id * 10 + index, name: category });
  });
  writeCourses(district, plan);
  writeExceptions(district, plan, more);
}

/** The scale, its one version and the main item of a school bear the school's own number. */
function writeScale(district: District, { id, scale, periods }: SchoolPlan): void {
  const kind = id === primary.id ? 'level' : 'percent';
  district.scales.push({
    id,
    schoolId: id,
    name: scale.name,
    kind,
    tiedToId: null,
    cutOffShift: null,
    pointsShift: null,
    highestLevel: scale.highestLevel ?? null,
  });
  district.scaleVersions.push({ id, scaleId: id, number: 1, fromPeriodId: periods[0]!.id, savedBy: null });
  scale.bands.forEach(([label, lowest, points, descriptor, passes], index) => {
    const band = { label, lowest, points, passes, earnsCredit: passes, descriptor, position: index + 1 };
    district.bands.push({ id: id * 100 + index, versionId: id, ...band });
  });
  district.scalePlacements.push({
    id,
    kind: 'school',
    schoolId: id,
    department: null,
    level: null,
    courseId: null,
    sectionId: null,
    scaleId: id,
    fromPeriodId: null,
    isLocked: id === primary.id,
  });
}

const untied = { tiedToId: null, cutOffShift: null, pointsShift: null, highestLevel: null };

function writeChoiceScale(district: District, { periods }: SchoolPlan, { id, name, bands }: ChoiceScale): void {
  const schoolId = Math.floor(id / 10);
  district.scales.push({ id, schoolId, name, kind: 'choice', ...untied });
  district.scaleVersions.push({ id, scaleId: id, number: 1, fromPeriodId: periods[0]!.id, savedBy: null });
  bands.forEach(([label, lowest, descriptor, passes], index) => {
    const band = { label, lowest, points: null, passes, earnsCredit: passes, descriptor, position: index + 1 };
    district.bands.push({ id: id * 100 + index, versionId: id, ...band });
  });
}

/** From Semester 2 on honours courses are half a point kinder, by a scale that follows the letters. */
function writeHonoursScale(district: District): void {
  const [id, fromPeriodId] = [11, 6];
  const tie = { ...untied, tiedToId: upper.id, cutOffShift: '-0.5', pointsShift: '0' };
  district.scales.push({ id, schoolId: upper.id, name: 'Honours letters', kind: 'percent', ...tie });
  district.scaleVersions.push({ id, scaleId: id, number: 1, fromPeriodId, savedBy: null });
  upper.scale.bands.forEach(([label, lowest, points, descriptor, passes], index) => {
    const shifted = lowest === '0' ? lowest : String(Number(lowest) - 0.5);
    const band = { label, lowest: shifted, points, passes, earnsCredit: passes, descriptor, position: index + 1 };
    district.bands.push({ id: id * 100 + index, versionId: id, ...band });
  });
  district.scalePlacements.push({
    id,
    kind: 'level',
    schoolId: upper.id,
    department: null,
    level: 'honours',
    courseId: null,
    sectionId: null,
    scaleId: id,
    fromPeriodId: null,
    isLocked: false,
  });
}

/** What an item is unless its plan says otherwise. */
const usualItem = {
  ordinals: null,
  scaleId: null,
  source: 'gradeBook',
  categoryId: null,
  countBy: 'percent',
  digits: 1,
  rounding: 'halfUp',
  highestPercent: '200',
  commentRule: 'optional',
  commentBelow: null,
  commentLength: 100,
  familyView: 'label',
  familyTime: 'closed',
  failingNeedsLastDate: false,
  asksHours: false,
  onTranscript: false,
  countsInGpa: true,
} as const;

function writeItem(district: District, { id, item, periods }: SchoolPlan): void {
  const kind = item.periodKind === 'term' ? 'final' : id === primary.id ? 'standard' : 'period';
  const familyView = id === primary.id ? 'descriptor' : 'label';
  district.reportItems.push({ ...usualItem, ...item, id, schoolId: id, kind, familyView, position: 1 });
  writeRule(district, id, id, { kind: null, length: null });
  for (const { id: periodId, window } of periods) {
    if (window) writeWindow(district, id, [periodId, ...window]);
  }
}

function writeMoreItem(
  district: District,
  { id: schoolId }: SchoolPlan,
  { row, parts = [], rule, windows }: MoreItem,
): void {
  district.reportItems.push({ ...usualItem, ...row, schoolId, position: (row.id % 100) + 1 });
  parts.forEach(([itemId, ordinal, weight], index) => {
    district.reportItemParts.push({ compositeId: row.id, position: index + 1, itemId, ordinal, weight });
  });
  writeRule(district, schoolId, row.id, rule);
  for (const window of windows) writeWindow(district, row.id, window);
}

function writeRule(district: District, schoolId: number, itemId: number, rule: MoreItem['rule']): void {
  const position = district.reportItemRules.filter((each) => each.schoolId === schoolId).length + 1;
  const choices = { department: null, level: null, ...rule };
  district.reportItemRules.push({
    id: district.reportItemRules.length + 1,
    schoolId,
    itemId,
    effect: 'reports',
    ...choices,
    position,
  });
}

function writeWindow(
  district: District,
  itemId: number,
  [periodId, opensAt, closesAt, earlyReason = '']: MoreItem['windows'][number],
): void {
  district.postingWindows.push({
    id: district.postingWindows.length + 1,
    itemId,
    periodId,
    earlyReason,
    opensAt: new Date(opensAt),
    closesAt: new Date(closesAt),
  });
}

/** The kind of a course by its department; a department without one is plain. */
const kinds: Readonly<Record<string, string>> = {
  'Sea and Shore': 'academic',
  'Numbers and Charts': 'academic',
  Letters: 'academic',
  'Island and World': 'academic',
  'Craft and Workshop': 'workshop',
  'Voice and Movement': 'activity',
  'Half-year courses': 'elective',
  Hands: 'workshop',
  Reading: 'reading',
};

/** Courses say only what is their own; the rest they inherit. */
function writeCourses(district: District, { id: schoolId, code: schoolCode, item, courses }: SchoolPlan): void {
  const usual = { credits: courses[0]!.credits, onTranscript: item.onTranscript, countsInGpa: courses[0]!.countsInGpa };
  const more = [{ department: null, ...usual }, ...(schoolId === upper.id ? upperDefaults : [])];
  for (const defaults of more) {
    const id = district.courseDefaults.length + 1;
    district.courseDefaults.push({ ...noDefaults, ...defaults, id, schoolId });
  }
  courses.forEach(({ yearGroup: _yearGroup, credits, countsInGpa, ...course }, index) => {
    const code = `${schoolCode}${String(index + 101)}`;
    const inherits = (fact: 'credits' | 'countsInGpa') =>
      more.find(({ department, ...facts }) => department === course.department && fact in facts) ?? more[0]!;
    const own = {
      credits: (inherits('credits') as { credits?: string }).credits === credits ? null : credits,
      countsInGpa:
        (inherits('countsInGpa') as { countsInGpa?: boolean }).countsInGpa === countsInGpa ? null : countsInGpa,
    };
    const kind = kinds[course.department] ?? '';
    district.courses.push({ ...course, ...own, id: schoolId * 1000 + index, schoolId, code, kind, ...nothingOwn });
  });
}

const nothingOwn = { mostCredits: null, onTranscript: null, allowsExempt: null };
const noDefaults = { department: null, credits: null, countsInGpa: null, ...nothingOwn };
const upperDefaults = [
  { department: 'Half-year courses', credits: '0.5' },
  { department: 'Voice and Movement', countsInGpa: false },
];

function writeExceptions(district: District, { id: schoolId }: SchoolPlan, { exceptions }: SetUpPlan): void {
  for (const [itemId, title, effect, reason] of exceptions) {
    const course = district.courses.find((each) => each.schoolId === schoolId && each.title === title)!;
    district.reportItemExceptions.push({ itemId, courseId: course.id, effect, reason });
  }
}
