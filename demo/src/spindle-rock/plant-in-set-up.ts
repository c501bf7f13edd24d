import { newCode } from '#core/codes';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { findBand } from '#core/scales';
import { bandsOf } from '../draw-grades.js';
import type { BandPlan } from '../school-plan.js';
import type { Planting } from './planting.js';
import { spindleRock } from './spindle-rock.js';

/** A scale for Harbour Talk whose lowest label begins at 40. */
const talkScaleId = 43;
const talkBands: readonly BandPlan[] = [
  ['A', '85', '4.0', 'Excellent', true],
  ['B', '70', '3.0', 'Good', true],
  ['C', '55', '2.0', 'Satisfactory', true],
  ['D', '40', '1.0', 'Just passing', true],
];

/** Faults of scales, courses and calculations; those of grade books stand in them already. */
export function plantInSetUp(planting: Planting): void {
  const { district, fault, decoy } = planting;
  usualOfCourses(planting);
  fault('sections-weighted-differently', 'its two sections weigh work and tests differently', {
    course: 'Tide Arithmetic',
  });
  decoy('sections-weighted-differently', 'the same weights, written down the other way round', {
    course: 'Net Geometry',
  });
  fault('weights-not-hundred', 'weights of 50, 40 and 20', 'Driftwood Accounts 1');
  decoy('weights-not-hundred', 'weights of 33.3, 33.3 and 33.4', 'Signal Flags 1');
  fault('calculation-not-set', 'nobody set how the department calculates', 'Lamp Keeping 1');
  fault('scores-without-weight', 'field notes are scored and weigh nothing', 'Knot Lore 1');
  decoy('scores-without-weight', 'field notes weigh nothing, and none is meant to count', 'Cloud Names 1');
  fault('assignment-over-half', 'one test is seven tenths of the grade', 'Charts of the Rock 1');
  decoy('assignment-over-half', 'one test is exactly half of the grade', 'Harbour Talk 1');
  fault(
    'score-above-scale',
    'a score of three times the points, as 3.0 was typed without its point',
    'Gull Counting 1',
  );
  decoy('score-above-scale', 'a point more than is possible, for extra work', 'Knife and Grain 1');
  fault('section-without-scale', 'its department says no scale, and neither does the school', 'Boat Songs 1');
  fault('course-without-credits', 'on the transcript, with credits of 0', { course: 'Signal Flags' });
  fault('item-without-window', 'expected in the term, and no window was ever set', { item: 'Reading aloud' });
  writeTalkScale(planting);
  fault('scale-with-gap', 'a scale without a label below 40', 'Harbour Talk 1');
  fault('unlike-sister-sections', 'the best of the school sit in one of three sections', 'Sea Weather 3');
  district.specialCodes.push({ ...visiting, countsAs: null, position: district.specialCodes.length + 1 });
}

/** A code that the school brought along and the district does not use. */
const visiting = newCode('VST', 'Visiting', { isOff: true, onTranscript: false });

/** Nobody may be exempt but in one course, and one may not be repeated for more credits. */
function usualOfCourses({ district }: Planting): void {
  const { courses, courseDefaults } = district;
  Object.assign(
    courseDefaults.find(({ schoolId }) => schoolId === spindleRock.id)!,
    { allowsExempt: false },
  );
  Object.assign(
    courses.find(({ title }) => title === 'Net Geometry')!,
    { allowsExempt: true },
  );
  Object.assign(
    courses.find(({ title }) => title === 'Old Charts')!,
    { mostCredits: '0.5' },
  );
}

function writeTalkScale({ district, gradesOf }: Planting): void {
  const { scales, scaleVersions, scalePlacements, bands, courses } = district;
  const untied = { tiedToId: null, cutOffShift: null, pointsShift: null, highestLevel: null };
  const own = { id: talkScaleId, schoolId: spindleRock.id, name: 'Talk letters', kind: 'percent' as const };
  scales.push({ ...own, ...untied });
  const fromPeriodId = spindleRock.periods[0]!.id;
  scaleVersions.push({ id: talkScaleId, scaleId: talkScaleId, number: 1, fromPeriodId, savedBy: null });
  talkBands.forEach(([label, lowest, points, descriptor, passes], at) => {
    const band = { label, lowest, points, passes, earnsCredit: passes, descriptor, position: at + 1 };
    bands.push({ id: talkScaleId * 100 + at, versionId: talkScaleId, ...band });
  });
  const courseId = courses.find(({ title }) => title === 'Harbour Talk')!.id;
  const [beside] = scalePlacements.filter(({ schoolId }) => schoolId === spindleRock.id);
  const id = Math.max(...scalePlacements.map((each) => each.id!)) + 1;
  scalePlacements.push({ ...beside!, id, kind: 'course', department: null, courseId, scaleId: talkScaleId });
  const known = bandsOf({ ...spindleRock, scale: { name: own.name, bands: talkBands } });
  for (const grade of gradesOf('Harbour Talk 1')) {
    const { band } = findBand(known, decimalOrThrow(grade.percent!), { digits: 0, rounding: roundHalfUp });
    Object.assign(grade, { label: band!.label, scaleVersionId: talkScaleId, lastDate: null, hours: null });
  }
}
