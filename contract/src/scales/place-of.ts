import type { ScalePlace } from '#core/scales';
import type { PlaceScaleRequest } from './scale-messages.js';

/** The place that a request speaks of: only the fields of its kind count. */
export function placeOf(
  schoolId: number,
  {
    kind,
    department,
    level,
    courseId,
    sectionId,
  }: Pick<PlaceScaleRequest, 'kind' | 'department' | 'level' | 'courseId' | 'sectionId'>,
): ScalePlace {
  return {
    kind,
    schoolId: kind === 'system' ? null : schoolId,
    department: kind === 'department' ? department : null,
    level: kind === 'level' ? level : null,
    courseId: kind === 'course' ? courseId : null,
    sectionId: kind === 'section' ? sectionId : null,
  };
}
