import { formatDecimal, parseDecimal, unitsAt } from '#core/numbers';
import type { ItemBody, ReportItemsReply } from '#contract/report-items';
import { sumOfWeights } from '#core/report-items';
import { bandTint } from '../ui/band-tint';

/** The parts of a composite as a bar that fills 100; what is lacking or too much stands at its end. */
export function CompositeBar({ item, reply }: { item: ItemBody; reply: ReportItemsReply }) {
  const parts = item.parts.map((part) => ({ ...part, read: parseDecimal(part.weight) }));
  const readable = parts.flatMap(({ read, ...part }) => (read ? [{ ...part, weight: read }] : []));
  const total = sumOfWeights(readable);
  const hundred = unitsAt({ units: 100n, digits: 0 }, total.digits);
  const missing = hundred - total.units;
  const whole = Math.max(100, Number(formatDecimal(total)));
  return (
    <div>
      <div className="flex h-9 gap-px overflow-hidden rounded-md">
        {parts.map(({ itemId, ordinal, weight, read }, index) => {
          const share = read ? Math.max(0, Number(formatDecimal(read))) / whole : 0;
          const { fill, ink } = bandTint(index, parts.length, true);
          return (
            <div
              key={index}
              style={{ width: `${share * 100}%`, background: fill, color: ink }}
              title={`${partName(reply, itemId, ordinal)}: ${weight}`}
              className="flex min-w-0 items-center overflow-hidden px-3 font-semibold whitespace-nowrap"
            >
              <span className="truncate">{partName(reply, itemId, ordinal)}</span>
              <span className="figures pl-2">· {shortWeight(weight)}</span>
            </div>
          );
        })}
        {missing > 0n && (
          <div
            style={{ width: `${(Number(missing) / Number(hundred)) * 100}%` }}
            className="hatched flex min-w-0 items-center justify-center rounded-r-md border border-wattle-fill"
          />
        )}
      </div>
      {missing !== 0n && (
        <p role="alert" className="mt-1 text-[13px] text-waratah">
          {missing > 0n
            ? `${formatDecimal({ units: missing, digits: total.digits })} of 100 is still to be given.`
            : `The weights make ${formatDecimal(total)}, ${formatDecimal({ units: -missing, digits: total.digits })} more than 100.`}
        </p>
      )}
    </div>
  );
}

/** 40 for 40.00; what cannot be read stays as it was typed. */
export function shortWeight(weight: string): string {
  return weight.includes('.') ? weight.replace(/\.?0+$/, '') : weight;
}

/** "Quarter grade, 1st quarter", by the item's kind of period. */
export function partName({ items }: ReportItemsReply, itemId: number, ordinal: number): string {
  const item = items.find(({ id }) => id === itemId);
  return item ? `${item.name}, ${ordinalWord(ordinal)} ${item.periodKind}` : 'choose an item';
}

export function ordinalWord(ordinal: number): string {
  return ['1st', '2nd', '3rd'][ordinal - 1] ?? `${ordinal}th`;
}
