/**
 * Whole minutes from one instant to a later one, begun ones counted; 0 once it is over.
 * @example minutesUntil('2026-01-23T17:00:00Z', '2026-01-23T16:58:30Z') // 2
 */
export function minutesUntil(instant: string, now: string): number {
  return Math.max(0, Math.ceil((Date.parse(instant) - Date.parse(now)) / 60_000));
}
