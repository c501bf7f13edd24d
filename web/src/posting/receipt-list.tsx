import type { ReceiptReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { showInstant } from '../ui/format';
import { ReceiptRows } from './receipt-rows';

/** What each save changed, and nothing else, newest first. */
export function ReceiptList({ receipts }: { receipts: readonly ReceiptReply[] }) {
  if (receipts.length === 0) return null;
  return (
    <section
      aria-label="Receipts"
      className="max-h-[30%] shrink-0 overflow-auto border-t border-hairline px-3 py-2.5 text-[13px]"
    >
      <h2 className="mb-1 font-bold">Receipts</h2>
      {receipts.map(({ id, savedAt, savedBy, onBehalfOf, changes }, index) => (
        <details key={id} open={index === 0} className="py-0.5">
          <summary className="cursor-pointer">
            {showInstant(savedAt)} · {savedBy}
            {onBehalfOf && ` on behalf of ${onBehalfOf}`} · {counted(changes.length, 'grade')}
          </summary>
          <ReceiptRows changes={changes} />
        </details>
      ))}
    </section>
  );
}
