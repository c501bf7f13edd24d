import { gpa, type Gpa, type TranscriptEntry } from '#core/transcripts';
import { gpaPolicyOfBody, type GpaPolicyBody } from '#contract/transcripts';
import { decimalOrThrow, parseDecimal } from '#core/numbers';
import { courseLevels, type CourseLevel } from '#core/courses';
import { createDraftStore } from '../shell/draft-store';

/** The settings being changed, under one key as they are the district's; based on the revision they began from. */
export const gpaDrafts = createDraftStore<GpaPolicyBody, string>('gpa');
export const gpaDraftKey = 'district';

/** What is wrong with one number of a draft, or undefined; a comma stands for a point. */
export function numberFault(text: string, decimals: number): string | undefined {
  const value = parseDecimal(text.trim().replace(',', '.'));
  if (value && value.units >= 0n && value.digits <= decimals) return undefined;
  return `a number from 0 with at most ${decimals} decimals, such as ${decimals > 2 ? '4' : '0.5'}`;
}

/** The draft with its numbers as they are sent, or undefined while one of them cannot be read. */
export function readDraft(draft: GpaPolicyBody): GpaPolicyBody | undefined {
  const points = [...courseLevels.map((level) => draft.additions[level]), draft.leastAddedPoints];
  const isReadable =
    points.every((text) => numberFault(text, 2) === undefined) &&
    (draft.mostAddedCredits === null || numberFault(draft.mostAddedCredits, 4) === undefined);
  if (!isReadable) return undefined;
  const tidy = (text: string) => text.trim().replace(',', '.');
  const { regular, honours, college } = draft.additions;
  return {
    ...draft,
    additions: { regular: tidy(regular), honours: tidy(honours), college: tidy(college) },
    leastAddedPoints: tidy(draft.leastAddedPoints),
    mostAddedCredits: draft.mostAddedCredits === null ? null : tidy(draft.mostAddedCredits),
  };
}

/** A small transcript to show the settings on: one course of each level, of a credit each, and a weak one. */
const sample: readonly (readonly [title: string, level: CourseLevel, mark: string, points: string])[] = [
  ['A regular course', 'regular', 'B', '3.0'],
  ['An honours course', 'honours', 'A', '4.0'],
  ['A college-level course', 'college', 'C', '2.0'],
  ['Another honours course', 'honours', 'D', '1.0'],
];

/** What the settings make of the small transcript. */
export function sampleGpa(policy: GpaPolicyBody): Gpa {
  const credit = decimalOrThrow('1');
  const entries = sample.map(([courseTitle, level, mark, points], at): TranscriptEntry => ({
    courseCode: String(at),
    courseTitle,
    level,
    percent: null,
    mark,
    points: decimalOrThrow(points),
    passes: true,
    creditsTried: credit,
    creditsEarned: credit,
    countsInGpa: true,
    attempt: at,
    mostCredits: null,
  }));
  return gpa(entries, gpaPolicyOfBody(policy));
}
