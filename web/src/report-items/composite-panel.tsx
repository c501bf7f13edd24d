import {
  add,
  decimalOrThrow,
  divide,
  formatDecimal,
  fromDecimal,
  multiply,
  rational,
  roundHalfUp,
  roundTo,
  zero,
} from '#core/numbers';
import type { ItemReply, ReportItemsReply } from '#contract/report-items';
import { listed } from '#contract/messages';
import { showPrecision } from '../ui/format';
import { CompositeBar, partName } from './composite-bar';
import { unitWords } from './words';

/** What a composite is made of, and what becomes of it where a part is lacking. */
export function CompositePanel({ item, reply }: { item: ItemReply; reply: ReportItemsReply }) {
  const last = item.parts.at(-1);
  return (
    <div className="px-4 py-2.5">
      <CompositeBar item={item} reply={reply} />
      <p className="mt-1.5 text-[12px] leading-snug text-quiet">
        {last && item.parts.length > 1 && (
          <>
            Exempt from {partName(reply, last.itemId, last.ordinal)}: the others count{' '}
            <b>{listed(sharesWithout(item))}</b>.{' '}
          </>
        )}
        A part missing: no value, and the sheet says which. A part incomplete: <b>{item.name} is incomplete</b>. Parts
        count by {unitWords[item.countBy]}, overrides included; their mean is rounded{' '}
        {showPrecision(item.rounding, item.digits)}, once, then looked up on {item.scaleName ?? 'the course’s scale'}.
      </p>
    </div>
  );
}

/** The shares of the other parts when the last one is left out, to two digits where needed. */
function sharesWithout({ parts }: ItemReply): string[] {
  const rest = parts.slice(0, -1).map(({ weight }) => fromDecimal(decimalOrThrow(weight)));
  const total = rest.reduce(add, zero);
  return rest.map((weight) =>
    formatDecimal(roundTo(multiply(divide(weight, total), rational(100n, 1n)), 2, roundHalfUp)).replace(/\.?0+$/, ''),
  );
}
