import type { Course } from '#core/courses';
import { decimalOrThrow, type Credits, type GradePoints } from '#core/numbers';
import type { Mark } from '#core/posting';
import type { SpecialCode } from '#core/codes';
import type { Band } from '#core/scales';
import type { TranscriptEntry } from './transcript-entry.js';

const nothing: Credits = decimalOrThrow('0');
const noPoints: GradePoints = decimalOrThrow('0');

/**
 * The transcript line of a posted mark, or undefined where none is due: the course is not on the transcript, nothing is
 * posted, or the code is one that transcripts leave out. A failing code in the GPA counts there with 0 grade points. `share` is
 * the part of the course's credits that the period carries, `attempt` the enrollment that the mark is posted for.
 */
export function entryOfMark(
  course: Course,
  mark: Mark,
  bands: readonly Band[],
  codes: ReadonlyMap<string, SpecialCode>,
  share: Credits,
  attempt: number,
): TranscriptEntry | undefined {
  if (!course.onTranscript) return undefined;
  const { code: courseCode, title: courseTitle, level, mostCredits } = course;
  const line = { courseCode, courseTitle, level, percent: mark.percent, attempt, mostCredits };
  if (mark.code !== null) {
    const code = codes.get(mark.code);
    if (!code?.onTranscript) return undefined;
    return {
      ...line,
      mark: code.code,
      points: code.isFailing && code.countsInGpa ? noPoints : null,
      passes: code.earnsCredit && !code.isFailing,
      creditsTried: code.triesCredit ? share : nothing,
      creditsEarned: code.earnsCredit ? share : nothing,
      countsInGpa: course.countsInGpa && code.countsInGpa,
    };
  }
  const band = bands.find(({ label }) => label === mark.label);
  if (!band) return undefined;
  const creditsEarned = band.earnsCredit ? share : nothing;
  return {
    ...line,
    mark: band.label,
    points: band.points,
    passes: band.passes,
    creditsTried: share,
    creditsEarned,
    countsInGpa: course.countsInGpa,
  };
}
