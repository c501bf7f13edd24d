/** Where a grade stands. */
export interface GradePlace {
  readonly itemId: number;
  readonly periodId: number;
  readonly enrollmentId: number;
}

/** As changes name it. */
export function gradeId({ itemId, periodId, enrollmentId }: GradePlace): string {
  return `${itemId}/${periodId}/${enrollmentId}`;
}

/** The place that such a name names. */
export function gradePlaceOf(id: string): GradePlace {
  const [itemId, periodId, enrollmentId] = id.split('/').map(Number);
  return { itemId: itemId!, periodId: periodId!, enrollmentId: enrollmentId! };
}

/** The enrollments of each item in each period. */
export function byItem(places: readonly GradePlace[]) {
  const sheets = new Map<string, { itemId: number; periodId: number; enrollmentIds: number[] }>();
  for (const { itemId, periodId, enrollmentId } of places) {
    const key = `${itemId}/${periodId}`;
    const sheet = sheets.get(key) ?? { itemId, periodId, enrollmentIds: [] };
    sheet.enrollmentIds.push(enrollmentId);
    sheets.set(key, sheet);
  }
  return sheets.values();
}
