import type { TieBody } from '#contract/scales';
import { decimalOrThrow } from '#core/numbers';
import type { ScaleRow } from './scales.repository.js';

/** A tie as it came over the wire, its shifts as exact decimals. */
export function decimalTie(tie: TieBody | null): ScaleRow['tie'] {
  return (
    tie && {
      toId: tie.toId,
      shift: { cutOffs: decimalOrThrow(tie.cutOffShift), points: decimalOrThrow(tie.pointsShift) },
    }
  );
}
