import type { District } from './district.js';
import { schoolPlans, type SchoolPlan } from './schools.js';

/** Writes down what the plans say: schools, calendars, scales, items, rules, windows and courses. Nothing is by lot. */
export function writeSetUp(district: District): void {
  for (const plan of schoolPlans) {
    const { id, code, name, shortName } = plan;
    district.schools.push({ id, code, name, shortName });
    for (const { window: _window, ...period } of plan.periods) district.periods.push({ ...period, schoolId: id });
    writeScale(district, plan);
    writeItem(district, plan);
    plan.categories.forEach(([category, weight], index) => {
      district.categories.push({ id: id * 10 + index, schoolId: id, name: category, weight: String(weight) });
    });
    writeCourses(district, plan);
  }
  district.specialCodes.push(
    {
      code: 'INC',
      meaning: 'Incomplete',
      forbidsPercent: true,
      needsLastDate: true,
      triesCredit: true,
      onTranscript: true,
      position: 1,
    },
    {
      code: 'EXM',
      meaning: 'Exempt',
      forbidsPercent: true,
      needsLastDate: false,
      triesCredit: false,
      onTranscript: false,
      position: 2,
    },
    {
      code: 'WDR',
      meaning: 'Withdrawn',
      forbidsPercent: true,
      needsLastDate: true,
      triesCredit: false,
      onTranscript: true,
      position: 3,
    },
    {
      code: 'NVA',
      meaning: 'Never attended',
      forbidsPercent: true,
      needsLastDate: true,
      triesCredit: true,
      onTranscript: true,
      position: 4,
    },
  );
}

/** The scale, its one version and the item of a school bear the school's own number. */
function writeScale(district: District, { id, scale, periods }: SchoolPlan): void {
  district.scales.push({ id, schoolId: id, name: scale.name });
  district.scaleVersions.push({ id, scaleId: id, number: 1, fromPeriodId: periods[0]!.id, savedBy: null });
  scale.bands.forEach(([label, lowest, points, descriptor, passes], index) => {
    district.bands.push({
      id: id * 100 + index,
      versionId: id,
      label,
      lowest,
      points,
      passes,
      earnsCredit: passes,
      descriptor,
    });
  });
}

function writeItem(district: District, { id, item, periods }: SchoolPlan): void {
  const { name, heading, digits, failingNeedsLastDate, onTranscript, periodKind } = item;
  const rounding = 'halfUp' as const;
  district.reportItems.push({
    id,
    schoolId: id,
    name,
    heading,
    scaleId: id,
    digits,
    rounding,
    failingNeedsLastDate,
    onTranscript,
  });
  district.reportItemRules.push({
    id,
    schoolId: id,
    itemId: id,
    periodKind,
    department: null,
    level: null,
    length: null,
    position: 1,
  });
  for (const { id: periodId, window } of periods) {
    if (window) {
      const [opensAt, closesAt] = window.map((instant) => new Date(instant)) as [Date, Date];
      district.postingWindows.push({ id: periodId, itemId: id, periodId, opensAt, closesAt });
    }
  }
}

function writeCourses(district: District, { id: schoolId, code: schoolCode, item, courses }: SchoolPlan): void {
  courses.forEach(({ yearGroup: _yearGroup, ...course }, index) => {
    const code = `${schoolCode}${String(index + 101)}`;
    district.courses.push({ ...course, id: schoolId * 1000 + index, schoolId, code, onTranscript: item.onTranscript });
  });
}
