import { useId, useState } from 'react';
import { decimalOrThrow, formatAtLeast, formatDecimal } from '#core/numbers';
import { mostPercent, readPercent } from '#core/posting';
import { findBand, type Band, type Precision } from '#core/scales';
import { showLabel } from '../ui/format';

/** Any value gives its label and points, and how it came to them. */
export function TryValue({
  bands,
  precision,
  highestLevel,
}: {
  bands: readonly Band[];
  precision: Precision;
  highestLevel: string | null;
}) {
  const id = useId();
  const top = highestLevel === null ? undefined : formatAtLeast(decimalOrThrow(highestLevel), 0);
  const [text, setText] = useState(top ?? '89.46');
  const read = readPercent(text, {
    highestLevel: highestLevel === null ? null : decimalOrThrow(highestLevel),
    highestPercent: mostPercent,
  });
  const found = read.kind === 'percent' ? findBand(bands, read.percent, precision) : undefined;
  return (
    <div className="flex items-center gap-2.5 px-4 py-2.5">
      <label htmlFor={id} className="font-bold whitespace-nowrap">
        Try
      </label>
      <input
        id={id}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="figures h-8 w-[76px] rounded-md border border-control bg-surface px-2 text-right"
      />
      <output htmlFor={id} className="flex-1 text-[13px] text-quiet">
        {read.kind === 'fault' && (
          <span className="text-waratah">
            {top === undefined ? 'type a percentage from 0 to 200, such as 89.46' : `type a level from 0 to ${top}`}
          </span>
        )}
        {found && (
          <span className="flex items-baseline gap-1.5 whitespace-nowrap">
            rounds to <b className="figures text-ink">{formatDecimal(found.rounded)}</b> and is
            <b className="figures ml-auto text-[18px] text-ink">
              {found.band ? showLabel(found.band.label) : 'nothing'}
            </b>
            <span className="figures">{found.band?.points ? formatAtLeast(found.band.points, 1) : ''}</span>
          </span>
        )}
      </output>
    </div>
  );
}
