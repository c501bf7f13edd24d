import type { TieBody } from '#contract/scales';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
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

/** A tie as it goes over the wire and into the log. */
export function tieBody({ tie }: Pick<ScaleRow, 'tie'>): TieBody | null {
  return (
    tie && {
      toId: tie.toId,
      cutOffShift: formatDecimal(tie.shift.cutOffs),
      pointsShift: formatDecimal(tie.shift.points),
    }
  );
}
