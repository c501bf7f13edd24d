import { minutesUntil } from '#core/calendar';
import { counted } from '#contract/messages';
import type { SheetReply } from '#contract/posting';
import { showDeadline } from '../ui/format';
import { Strong } from '../ui/page';

/** Minutes that are counted down before a window closes. */
const lastMinutes = 60;

/** When an open window closes; in its last hour, in how many minutes. */
export function WindowCloses({ closesAt, now }: { closesAt: string; now: string }) {
  const left = minutesUntil(closesAt, now);
  if (left > lastMinutes)
    return (
      <>
        The window closes <Strong tone="informs">{showDeadline(closesAt, now)}</Strong>.
      </>
    );
  return (
    <>
      The window closes in <Strong tone="warns">{counted(left, 'minute')}</Strong>.
    </>
  );
}

/** What is so of the window of a sheet: until when it is open, or that a save posts outside it. */
export function WindowSentence({ sheet, now }: { sheet: Pick<SheetReply, 'window' | 'period'>; now: string }) {
  const { window, period } = sheet;
  if (window?.state === 'open') return <WindowCloses closesAt={window.closesAt} now={now} />;
  const says =
    window === null
      ? `${period.name} has no posting window.`
      : window.state === 'grace'
        ? `The window is closed; grades are still taken until ${showDeadline(window.graceUntil!, now)}.`
        : `The window of ${period.name} is ${window.state === 'closed' ? 'closed' : 'not open yet'}; a save posts outside it.`;
  return <Strong tone="warns">{says}</Strong>;
}
