import { Link, useSearchParams } from 'react-router';
import { addDays, parseDay } from '#core/calendar';
import type { SheetReceiptReply } from '#contract/posting';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button } from '../ui/button';
import { DayField } from '../ui/day/day-field';
import { showDay, showTime } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { ReceiptRows } from './receipt-rows';
import { useDayReceipts } from './queries';

/** What somebody posted on a day, and what was posted for them, in one. */
export function ReceiptsPage() {
  const [search, setSearch] = useSearchParams();
  const asked = parseDay(search.get('day') ?? '') ?? null;
  const read = useDayReceipts(asked);
  if (!read.data) return <PageFace queries={[read]} />;
  const { day, receipts } = read.data;
  const go = (next: string) => setSearch((before) => searchWith(before, { day: next }));
  const grades = receipts.reduce((sum, { changes }) => sum + changes.length, 0);
  const others = receipts.filter(({ onBehalfOf }) => onBehalfOf !== null).length;
  return (
    <Page
      headline={
        receipts.length === 0 ? (
          `Nothing was posted by you or on your behalf on ${showDay(day)}.`
        ) : (
          <>
            On {showDay(day)} <Strong>{counted(grades, 'grade')}</Strong> {agreeing(grades, 'was')} changed in{' '}
            {counted(receipts.length, 'save')}
            {others > 0 && `, ${others} of them on behalf of a teacher`}.
          </>
        )
      }
      actions={
        <>
          <Button onClick={() => go(addDays(day, -1))}>◂ Day before</Button>
          <DayField label="Day" day={day} onChange={go} />
          <Button onClick={() => go(addDays(day, 1))}>Day after ▸</Button>
          <Button onClick={() => print()}>Print</Button>
        </>
      }
      below="Once a day is over, its receipts also go out as one message."
    >
      {receipts.length === 0 ? (
        <Panel className="flex-1">
          <Empty title="No receipt">
            A receipt is made by each save of a grade sheet, with the grades that it changed.
          </Empty>
        </Panel>
      ) : (
        <div className="min-h-0 flex-1 space-y-3 overflow-auto print:overflow-visible">
          {receipts.map((receipt) => (
            <Receipt key={receipt.id} receipt={receipt} />
          ))}
        </div>
      )}
    </Page>
  );
}

function Receipt({ receipt }: { receipt: SheetReceiptReply }) {
  const { schoolId } = useScope();
  const { savedAt, savedBy, onBehalfOf, section, item, period, sectionId, itemId, periodId, changes } = receipt;
  return (
    <Panel label={`${section}, ${showTime(savedAt)}`} className="px-4 py-3 text-[13px]">
      <h2 className="mb-1.5 flex gap-2">
        <span className="figures">{showTime(savedAt)}</span>
        <Link
          to={`/school/${schoolId}/period/${periodId}/grade-sheets/${sectionId}/${itemId}`}
          className="font-bold hover:underline"
        >
          {section}
        </Link>
        <span>
          {item}, {period}
        </span>
        <span className="ml-auto text-quiet">
          {savedBy}
          {onBehalfOf && ` on behalf of ${onBehalfOf}`}
        </span>
      </h2>
      <ReceiptRows changes={changes} />
    </Panel>
  );
}
