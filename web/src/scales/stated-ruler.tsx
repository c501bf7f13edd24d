import { formatDecimal, type Decimal } from '#core/numbers';
import type { EndFault, StatedBand } from '#core/scales';
import { showLabel } from '../ui/format';

const value = (decimal: Decimal) => Number(formatDecimal(decimal));

/** Stated bands from 0 to the top of the scale, with gaps hatched and overlaps marked. */
export function StatedRuler({
  bands,
  faults,
  digits,
  top,
}: {
  bands: readonly StatedBand[];
  faults: readonly EndFault[];
  digits: number;
  /** The value at the right end: 100, or the highest level. */
  top: number;
}) {
  const step = 10 ** -digits;
  const stretch = (from: number, to: number) => ({
    left: `${(from / top) * 100}%`,
    width: `${Math.max(0.4, ((Math.min(top, to + step) - from) / top) * 100)}%`,
  });
  return (
    <div className="relative h-[66px]" role="img" aria-label={`The bands as stated, from 0 to ${top}`}>
      <span className="figures absolute top-0 left-0 text-[12px] text-quiet">0</span>
      <span className="figures absolute top-0 right-0 text-[12px] text-quiet">{top}</span>
      {bands.map(({ label, lowest, highest }, index) => (
        <div
          key={label}
          style={stretch(Math.min(value(lowest), value(highest)), Math.max(value(lowest), value(highest)))}
          className={`absolute top-5 grid h-8 place-items-center overflow-hidden border-r border-surface font-bold ${index % 2 ? 'bg-eucalypt-soft' : 'bg-eucalypt-mid'}`}
        >
          {showLabel(label)}
        </div>
      ))}
      {faults
        .filter(({ kind }) => kind !== 'ends-crossed')
        .map(({ kind, from, to }, index) => (
          <div
            key={index}
            title={`${kind}: ${formatDecimal(from)} to ${formatDecimal(to)}`}
            style={stretch(value(from), value(to))}
            className={`absolute top-[18px] h-9 min-w-1 border ${kind === 'overlap' ? 'border-waratah bg-waratah/30' : 'hatched border-wattle-fill'}`}
          />
        ))}
    </div>
  );
}
