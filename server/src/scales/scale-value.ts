import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { ScaleKind } from '#core/scales';
import type { BandBody, TieBody } from '#contract/scales';
import type { ScaleRow } from './scales.repository.js';
import { decimalTie, tieBody } from './tie.js';

/** A version as it is kept: cut-offs are never edited in place. */
export interface VersionValue {
  readonly number: number;
  readonly fromPeriodId: number;
  readonly savedBy: number | null;
  /** ISO instant. */
  readonly savedAt: string;
  readonly bands: readonly BandBody[];
}

/** A scale as the log tells of it, with all its versions, the first one first. */
export interface ScaleValue {
  readonly schoolId: number | null;
  readonly name: string;
  readonly kind: ScaleKind;
  readonly highestLevel: string | null;
  readonly tie: TieBody | null;
  readonly versions: readonly VersionValue[];
}

export function valueOfScale(scale: ScaleRow, versions: readonly VersionValue[]): ScaleValue {
  const { schoolId, name, kind, highestLevel } = scale;
  return {
    schoolId,
    name,
    kind,
    highestLevel: highestLevel && formatDecimal(highestLevel),
    tie: tieBody(scale),
    versions,
  };
}

export function rowOfScale(id: number, { versions: _versions, tie, highestLevel, ...facts }: ScaleValue): ScaleRow {
  return {
    ...facts,
    id,
    tie: decimalTie(tie),
    highestLevel: highestLevel === null ? null : decimalOrThrow(highestLevel),
  };
}
