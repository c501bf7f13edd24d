import { scaleInForce, type PlacementKind, type ScalePlace, type ScalePlacement, type ScaleSeeker } from '#core/scales';

const places: Readonly<Record<PlacementKind, (place: ScalePlace) => string>> = {
  system: () => 'the whole district',
  school: () => 'the school',
  department: ({ department }) => department!,
  level: ({ level }) => `${level!} courses`,
  course: () => 'the course',
  section: () => 'the section',
};

/** The place that a placement speaks of, as people say it. */
export function placeName(place: ScalePlace): string {
  return places[place.kind](place);
}

/** The name of the scale in force for a course and the place that says so; null where none is. */
export function scaleSource(
  placements: readonly ScalePlacement[],
  names: ReadonlyMap<number, string>,
  seeker: ScaleSeeker,
): { readonly name: string; readonly from: string } | null {
  const found = scaleInForce(placements, seeker);
  return found ? { name: names.get(found.placement.scaleId)!, from: placeName(found.placement) } : null;
}

/** A course as it asks for its scale. */
export function seekerOf(course: {
  readonly id: number;
  readonly schoolId: number;
  readonly department: string;
  readonly level: ScaleSeeker['level'];
}): ScaleSeeker {
  const { id, schoolId, department, level } = course;
  return { schoolId, department, level, courseId: id, sectionId: null };
}
