import type { PlacementKind, ScalePlace } from '#core/scales';

/** From when on which scale is used at a place: null for none of its own from then on, and for always. */
export interface PlacedScale {
  readonly fromPeriodId: number | null;
  readonly scaleId: number | null;
  readonly isLocked: boolean;
}

const owners: Readonly<Record<PlacementKind, (place: ScalePlace) => string>> = {
  system: () => '',
  school: () => '',
  department: ({ department }) => department!,
  level: ({ level }) => level!,
  course: ({ courseId }) => String(courseId),
  section: ({ sectionId }) => String(sectionId),
};

/**
 * A place as changes name it, without spaces.
 * @example scalePlaceId({ kind: 'department', schoolId: 1, department: 'Sea and Sky', ... }) // '1/department/Sea%20and%20Sky'
 */
export function scalePlaceId(place: ScalePlace): string {
  return [place.schoolId ?? 'district', place.kind, encodeURIComponent(owners[place.kind](place))].join('/');
}

/** The place that such a name names. */
export function scalePlaceOf(id: string): ScalePlace {
  const [school, kind, owner] = id.split('/') as [string, PlacementKind, string];
  const name = decodeURIComponent(owner);
  return {
    kind,
    schoolId: school === 'district' ? null : Number(school),
    department: kind === 'department' ? name : null,
    level: kind === 'level' ? (name as ScalePlace['level']) : null,
    courseId: kind === 'course' ? Number(name) : null,
    sectionId: kind === 'section' ? Number(name) : null,
  };
}

export function placeOfCourse(schoolId: number, courseId: number): ScalePlace {
  return { kind: 'course', schoolId, department: null, level: null, courseId, sectionId: null };
}

/** What the one list has and the other has not, or has otherwise. */
export function missingFrom(some: readonly PlacedScale[], others: readonly PlacedScale[]): PlacedScale[] {
  return some.filter(
    ({ fromPeriodId, scaleId, isLocked }) =>
      !others.some(
        (other) => other.fromPeriodId === fromPeriodId && other.scaleId === scaleId && other.isLocked === isLocked,
      ),
  );
}
