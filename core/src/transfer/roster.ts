import type { Day } from '#core/calendar';
import type { Percent } from '#core/numbers';

/** A student of the section that a file is for. */
export interface RosterEntry {
  readonly enrollmentId: number;
  readonly name: string;
  readonly withdrawnOn: Day | null;
  /** What was computed before, null when nothing was. */
  readonly computed: Percent | null;
}

/** Finds people by what a file may call them. Keys are folded with `foldKey`. */
export interface Directory {
  /** Students of the section, by number and by e-mail. */
  readonly roster: ReadonlyMap<string, RosterEntry>;
  /** Every other student of the district, by number and by e-mail, with the name. */
  readonly others: ReadonlyMap<string, string>;
}

/** Letter case and surrounding space do not make two ids different. */
export function foldKey(id: string): string {
  return id.trim().toLowerCase();
}
