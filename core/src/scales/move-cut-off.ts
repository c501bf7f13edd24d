import { compareDecimals, type Percent } from '#core/numbers';
import type { CutBand } from './band.js';
import { topOf } from './scale-top.js';

/**
 * The bands with one cut-off moved. It stays at least one step (10^-`digits`) clear of its neighbours and within
 * 0 to `top`, so that moving never makes two bands change places. `bands` runs from the highest cut-off down.
 */
export function moveCutOff(
  bands: readonly CutBand[],
  index: number,
  wanted: Percent,
  digits: number,
  top = topOf(null),
): CutBand[] {
  const at = (band: CutBand | undefined, fallback: bigint, step: bigint) =>
    band ? onGrid(band.lowest, digits) + step : fallback;
  const highest = at(bands[index - 1], onGrid(top, digits), -1n);
  const lowest = at(bands[index + 1], 0n, 1n);
  let units = onGrid(wanted, digits);
  if (units > highest) units = highest;
  if (units < lowest) units = lowest;
  const moved = { units, digits };
  return bands.map((band, place) =>
    place === index && compareDecimals(band.lowest, moved) !== 0 ? { ...band, lowest: moved } : band,
  );
}

function onGrid(value: Percent, digits: number): bigint {
  return (value.units * 10n ** BigInt(digits)) / 10n ** BigInt(value.digits);
}
