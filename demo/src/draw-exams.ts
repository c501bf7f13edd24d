import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { entryRulesFor, noMark, takeComputed } from '#core/posting';
import type { District } from './district.js';
import { bandsOf, bareGrade, openPeriodId } from './draw-grades.js';
import { groupBySection, type CalculatedPercents } from './draw-scores.js';
import type { Random } from './random.js';
import { demoNow, upper } from './schools.js';

const examId = 101;
const examItem = { digits: 1, rounding: 'halfUp', highestPercent: decimalOrThrow('100') } as const;

/** Posts the exam of the open quarter, in the neighbourhood of what the quarter's work came to. */
export function drawExams(district: District, percents: CalculatedPercents, random: Random): void {
  const omitted = new Set(
    district.reportItemExceptions.filter(({ effect }) => effect === 'omits').map(({ courseId }) => courseId),
  );
  const added = new Set(
    district.reportItemExceptions.filter(({ effect }) => effect === 'reports').map(({ courseId }) => courseId),
  );
  const reports = new Set(
    district.courses
      .filter(
        ({ id, schoolId, kind, length }) =>
          schoolId === upper.id && (added.has(id) || (kind === 'academic' && length === 'year' && !omitted.has(id))),
      )
      .map(({ id }) => id),
  );
  const enrollments = groupBySection(district);
  const rules = entryRulesFor({ bands: bandsOf(upper), highestLevel: null }, examItem, []);
  const postedAt = new Date(Date.parse(demoNow) - 20 * 3_600_000).toISOString();
  for (const section of district.sections.filter(({ courseId }) => reports.has(courseId))) {
    for (const enrollment of enrollments.get(section.id) ?? []) {
      const quarter = percents.get(`${enrollment.id}/${openPeriodId}`);
      if (quarter === undefined || enrollment.withdrawnOn !== null) continue;
      const percent = Math.min(100, Math.max(20, Number(quarter) + random.whole(-9, 7)));
      const mark = takeComputed(noMark, decimalOrThrow(percent.toFixed(1)), rules);
      district.grades.push({
        itemId: examId,
        periodId: openPeriodId,
        enrollmentId: enrollment.id,
        ...bareGrade,
        percent: formatDecimal(mark.percent!),
        label: mark.label,
        scaleVersionId: upper.id,
        postedBy: section.teacherId,
        postedAt,
      });
    }
  }
}
