import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { useQueryClient } from '@tanstack/react-query';
import { usePeriod, useRefreshCounts } from '../shell/scope';
import { useServerNow } from '../shell/use-server-now';
import { showDeadline, showInstant } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import type { SheetRow } from './sheet-view';

/** What is posted here, what is left, and until when. */
export function SheetHeadline({
  sheet,
  rows,
  blanks,
  onProblem,
}: {
  sheet: SheetReply;
  rows: readonly SheetRow[];
  blanks: number;
  onProblem: () => void;
}) {
  const { termLine } = usePeriod();
  const expected = rows.filter(({ reply }) => reply.withdrawnOn === null).length;
  const remarks = rows.filter((row) => row.remarks.length > 0).length;
  const unsaved = rows.filter(({ isUnsaved }) => isUnsaved).length;
  const { window, sealedAt, period } = sheet;
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const instants = window ? [window.opensAt, window.closesAt, ...(window.graceUntil ? [window.graceUntil] : [])] : [];
  const now = useServerNow(termLine?.now ?? new Date(0).toISOString(), instants, () => {
    void client.invalidateQueries({ queryKey: ['sheet'] });
    refreshCounts();
  });
  const left = window ? Math.ceil((Date.parse(window.closesAt) - Date.parse(now)) / 60_000) : 0;
  return (
    <>
      {sealedAt ? 'Sealed: ' : 'Posting '}
      <Strong>{sheet.itemName}</Strong> of{' '}
      <Strong tone={window?.state === 'open' ? 'so' : 'warns'}>{period.name}</Strong> for {sheet.section}:{' '}
      {expected - blanks} of {expected} done
      {remarks > 0 && (
        <>
          ,{' '}
          <FigureButton tone="blocks" onClick={onProblem}>
            {counted(remarks, 'matter')}
          </FigureButton>{' '}
          in Notes
        </>
      )}
      {unsaved > 0 && (
        <>
          , <Strong tone="warns">{unsaved} unsaved</Strong>
        </>
      )}
      . {sealedAt && `It was sealed ${showInstant(sealedAt)}; a grade changes only by amendment.`}
      {!sealedAt && window?.state === 'open' && termLine && (
        <>
          The window closes{' '}
          {left <= 60 ? (
            <>
              in <Strong tone="warns">{counted(left, 'minute')}</Strong>
            </>
          ) : (
            <Strong tone="informs">{showDeadline(window.closesAt, now)}</Strong>
          )}
          .
        </>
      )}
      {!sealedAt && window?.state === 'grace' && window.graceUntil && termLine && (
        <Strong tone="warns">
          The window is closed; grades are still taken until {showDeadline(window.graceUntil, now)}.
        </Strong>
      )}
      {!sealedAt && window?.state === 'closed' && (
        <Strong tone="warns">The window of {period.name} is closed; a save posts outside it.</Strong>
      )}
      {!sealedAt && window?.state === 'not yet open' && (
        <Strong tone="warns">The window of {period.name} is not open yet; a save posts outside it.</Strong>
      )}
      {!sealedAt && window === null && <Strong tone="warns">{period.name} has no posting window.</Strong>}
    </>
  );
}
