/** Whose list of categories it is: a school's own, or one section's. */
export interface CategoryPlace {
  readonly schoolId: number;
  readonly sectionId: number | null;
}

/** As changes name it: "1" or "1/4711". */
export function categoryPlaceId({ schoolId, sectionId }: CategoryPlace): string {
  return sectionId === null ? String(schoolId) : `${schoolId}/${sectionId}`;
}

export function categoryPlaceOf(id: string): CategoryPlace {
  const [schoolId, sectionId] = id.split('/').map(Number);
  return { schoolId: schoolId!, sectionId: sectionId ?? null };
}
