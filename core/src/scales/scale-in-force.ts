import type { CourseLevel } from '#core/courses';

/** Where a scale is put in force, from the widest place to the narrowest. */
export const placementKinds = ['system', 'school', 'department', 'level', 'course', 'section'] as const;
export type PlacementKind = (typeof placementKinds)[number];

/** A scale put in force at one place. Only the fields of its kind are set; the others are null. */
export interface ScalePlacement {
  readonly id: number;
  readonly kind: PlacementKind;
  readonly schoolId: number | null;
  readonly department: string | null;
  readonly level: CourseLevel | null;
  readonly courseId: number | null;
  readonly sectionId: number | null;
  readonly scaleId: number;
  /** No narrower place may put another scale in force. */
  readonly isLocked: boolean;
}

/** The place that asks for its scale; a course without a section asks with null. */
export interface ScaleSeeker {
  readonly schoolId: number;
  readonly department: string;
  readonly level: CourseLevel;
  readonly courseId: number;
  readonly sectionId: number | null;
}

export interface ScaleInForce {
  readonly placement: ScalePlacement;
  /** Narrower placements that a lock above them keeps from counting, widest first. */
  readonly overruled: readonly ScalePlacement[];
}

/**
 * The scale that a course or section uses: the narrowest placement that speaks of it, unless a wider one is locked.
 * Undefined where no placement speaks of it at all.
 */
export function scaleInForce(placements: readonly ScalePlacement[], seeker: ScaleSeeker): ScaleInForce | undefined {
  const own = placements
    .filter((placement) => speaksOf(placement, seeker))
    .toSorted((a, b) => placementKinds.indexOf(a.kind) - placementKinds.indexOf(b.kind));
  const locked = own.findIndex(({ isLocked }) => isLocked);
  const at = locked === -1 ? own.length - 1 : locked;
  const placement = own[at];
  return placement && { placement, overruled: own.slice(at + 1) };
}

function speaksOf(placement: ScalePlacement, seeker: ScaleSeeker): boolean {
  switch (placement.kind) {
    case 'system':
      return true;
    case 'school':
      return placement.schoolId === seeker.schoolId;
    case 'department':
      return placement.schoolId === seeker.schoolId && placement.department === seeker.department;
    case 'level':
      return placement.schoolId === seeker.schoolId && placement.level === seeker.level;
    case 'course':
      return placement.courseId === seeker.courseId;
    case 'section':
      return seeker.sectionId !== null && placement.sectionId === seeker.sectionId;
  }
}
