import { unitsAt, type Credits } from '#core/numbers';

/** Credits added up exactly, with as many digits as the most exact of them; no credits at all are 0. */
export function sumCredits(credits: readonly Credits[]): Credits {
  const digits = Math.max(0, ...credits.map((each) => each.digits));
  return { units: credits.reduce((sum, each) => sum + unitsAt(each, digits), 0n), digits };
}
