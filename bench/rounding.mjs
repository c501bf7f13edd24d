// Exact rounding of 200,000 percents against decimal.js, a general decimal library.
import { Decimal } from 'decimal.js';
import { fromDecimal, roundHalfUp, roundTo } from '#core/numbers';
import { median } from './support/median.mjs';

const percents = Array.from({ length: 200_000 }, (_each, at) => BigInt((at * 7919) % 100_000));

export const measurements = [
  {
    what: 'rounding 200,000 percents of three digits to one',
    against: 'decimal.js on the same values',
    limit: 1,
    measure: async () => ({
      ours: await median(5, () => {
        for (const units of percents) roundTo(fromDecimal({ units, digits: 3 }), 1, roundHalfUp);
      }),
      peer: await median(5, () => {
        for (const units of percents) new Decimal(Number(units)).div(1000).toDecimalPlaces(1, Decimal.ROUND_HALF_CEIL);
      }),
    }),
  },
];
