import { decimalOrThrow, formatDecimal, roundings, type RoundingName } from '#core/numbers';
import type { GpaPolicy } from '#core/transcripts';
import type { GpaPolicyBody } from './transcript-messages.js';

/** How grade point averages are made, as it crosses the wire. @throws RangeError when a number is none */
export function gpaPolicyOfBody({ additions, leastAddedPoints, mostAddedCredits, ...body }: GpaPolicyBody): GpaPolicy {
  const { regular, honours, college } = additions;
  return {
    additions: { regular: decimalOrThrow(regular), honours: decimalOrThrow(honours), college: decimalOrThrow(college) },
    leastAddedPoints: decimalOrThrow(leastAddedPoints),
    mostAddedCredits: mostAddedCredits === null ? null : decimalOrThrow(mostAddedCredits),
    repeats: body.repeats,
    digits: body.digits,
    rounding: roundings[body.rounding],
  };
}

export function bodyOfGpaPolicy({
  additions,
  leastAddedPoints,
  mostAddedCredits,
  ...policy
}: GpaPolicy): GpaPolicyBody {
  const { regular, honours, college } = additions;
  const names = Object.keys(roundings) as RoundingName[];
  return {
    additions: { regular: formatDecimal(regular), honours: formatDecimal(honours), college: formatDecimal(college) },
    leastAddedPoints: formatDecimal(leastAddedPoints),
    mostAddedCredits: mostAddedCredits && formatDecimal(mostAddedCredits),
    repeats: policy.repeats,
    digits: policy.digits,
    rounding: names.find((name) => roundings[name] === policy.rounding)!,
  };
}
