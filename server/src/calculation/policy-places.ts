import type { PolicyPlace } from '#core/calculation';

export function isSamePlace(a: PolicyPlace, b: PolicyPlace): boolean {
  return a.department === b.department && a.sectionId === b.sectionId && a.periodId === b.periodId;
}

/** As the log names it. */
export function thingOf(schoolId: number, { department, sectionId, periodId }: PolicyPlace): string {
  const where = sectionId !== null ? `section ${sectionId}` : (department ?? `school ${schoolId}`);
  return `policy of ${where}${periodId === null ? '' : ` in period ${periodId}`}`;
}
