import type { ItemBody, ReportItemsReply } from '#contract/report-items';
import { bandTint } from '../ui/band-tint';
import { WeightBar } from '../ui/weight-bar';

/** The parts of a composite as a bar that fills 100. */
export function CompositeBar({ item, reply }: { item: ItemBody; reply: ReportItemsReply }) {
  const parts = item.parts.map(({ itemId, ordinal, weight }, index) => ({
    name: partName(reply, itemId, ordinal),
    weight,
    ...bandTint(index, item.parts.length, true),
  }));
  return (
    <WeightBar
      parts={parts}
      onOff={(off, isTooMuch) =>
        isTooMuch ? `The weights make ${off} more than 100.` : `${off} of 100 is still to be given.`
      }
    />
  );
}

/** "Quarter grade, 1st quarter", by the item's kind of period. */
export function partName({ items }: ReportItemsReply, itemId: number, ordinal: number): string {
  const item = items.find(({ id }) => id === itemId);
  return item ? `${item.name}, ${ordinalWord(ordinal)} ${item.periodKind}` : 'choose an item';
}

export function ordinalWord(ordinal: number): string {
  return ['1st', '2nd', '3rd'][ordinal - 1] ?? `${ordinal}th`;
}
