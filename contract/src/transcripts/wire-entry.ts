import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { TranscriptEntry } from '#core/transcripts';
import type { TranscriptEntryReply } from './transcript-messages.js';

/** A transcript line as it crosses the wire. */
export function replyOfEntry({
  percent,
  points,
  creditsTried,
  creditsEarned,
  mostCredits,
  ...entry
}: TranscriptEntry): TranscriptEntryReply {
  return {
    ...entry,
    percent: percent && formatDecimal(percent),
    points: points && formatDecimal(points),
    creditsTried: formatDecimal(creditsTried),
    creditsEarned: formatDecimal(creditsEarned),
    mostCredits: mostCredits && formatDecimal(mostCredits),
  };
}

/** @throws RangeError when a number is none, as the server never sends */
export function entryOfReply({
  percent,
  points,
  creditsTried,
  creditsEarned,
  mostCredits,
  ...entry
}: TranscriptEntryReply): TranscriptEntry {
  return {
    ...entry,
    percent: percent === null ? null : decimalOrThrow(percent),
    points: points === null ? null : decimalOrThrow(points),
    creditsTried: decimalOrThrow(creditsTried),
    creditsEarned: decimalOrThrow(creditsEarned),
    mostCredits: mostCredits === null ? null : decimalOrThrow(mostCredits),
  };
}
