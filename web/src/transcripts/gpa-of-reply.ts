import { decimalOrThrow, type GradePoints } from '#core/numbers';
import { gpa, type Gpa, type TranscriptEntry } from '#core/transcripts';
import {
  entryOfReply,
  gpaPolicyOfBody,
  type GpaPolicyBody,
  type TranscriptPeriodReply,
  type TranscriptReply,
} from '#contract/transcripts';

const none: GradePoints = decimalOrThrow('0');

/** The weighted and the unweighted GPA of some lines, both with their sums. */
export interface BothGpas {
  readonly unweighted: Gpa;
  readonly weighted: Gpa;
}

export function bothGpas(entries: readonly TranscriptEntry[], policy: GpaPolicyBody): BothGpas {
  const weighted = gpaPolicyOfBody(policy);
  return {
    weighted: gpa(entries, weighted),
    unweighted: gpa(entries, { ...weighted, additions: { regular: none, honours: none, college: none } }),
  };
}

/** The lines that a GPA counts: those of sealed periods. */
export function sealedEntries({ periods }: Pick<TranscriptReply, 'periods'>): TranscriptEntry[] {
  return periods.filter(({ sealedAt }) => sealedAt !== null).flatMap(({ entries }) => entries.map(entryOfReply));
}

export function entriesOf({ entries }: TranscriptPeriodReply): TranscriptEntry[] {
  return entries.map(entryOfReply);
}
