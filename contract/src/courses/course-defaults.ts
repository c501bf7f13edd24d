import type { CourseDefaults } from '#core/courses';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { CourseDefaultsBody } from './course-messages.js';

/** What holds where courses say nothing, as it crosses the wire: the whole school before its departments. */
export function bodiesOfDefaults(defaults: readonly CourseDefaults[]): CourseDefaultsBody[] {
  return defaults.map(bodyOfDefaults).toSorted((a, b) => ((a.department ?? '') < (b.department ?? '') ? -1 : 1));
}

function bodyOfDefaults({ credits, mostCredits, ...defaults }: CourseDefaults): CourseDefaultsBody {
  return {
    ...defaults,
    credits: credits && formatDecimal(credits),
    mostCredits: mostCredits && formatDecimal(mostCredits),
  };
}

export function defaultsOfBody({ credits, mostCredits, ...body }: CourseDefaultsBody): CourseDefaults {
  return {
    ...body,
    credits: credits === null ? null : decimalOrThrow(credits),
    mostCredits: mostCredits === null ? null : decimalOrThrow(mostCredits),
  };
}
