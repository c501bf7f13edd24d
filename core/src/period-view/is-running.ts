import type { Day } from '#core/calendar';

interface Days {
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/**
 * Whether a section runs in a period: its own period holds this one, and it meets on at least one of its days. A section
 * that begins late or ends early runs in every period it has days in.
 */
export function isRunning({ term, runs }: { readonly term: Days; readonly runs: Days }, period: Days): boolean {
  const isHeld = term.startsOn <= period.startsOn && period.endsOn <= term.endsOn;
  return isHeld && runs.startsOn <= period.endsOn && period.startsOn <= runs.endsOn;
}
