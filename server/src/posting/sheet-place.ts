/** A section's students with one item in one period. */
export interface SheetPlace {
  readonly sectionId: number;
  readonly itemId: number;
  readonly periodId: number;
}

/** As changes name it. */
export function sheetId({ sectionId, itemId, periodId }: SheetPlace): string {
  return `${sectionId}/${itemId}/${periodId}`;
}

/** The place that such a name names. */
export function sheetPlaceOf(id: string): SheetPlace {
  const [sectionId, itemId, periodId] = id.split('/').map(Number);
  return { sectionId: sectionId!, itemId: itemId!, periodId: periodId! };
}
