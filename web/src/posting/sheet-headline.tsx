import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { usePeriod } from '../shell/scope';
import { showInstant } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import { useWindowNow } from './use-window-now';
import { WindowSentence } from './window-sentence';
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
  const expected = rows.filter(({ reply }) => reply.withdrawnOn === null).length;
  const remarks = rows.filter((row) => row.remarks.length > 0).length;
  const unsaved = rows.filter(({ isUnsaved }) => isUnsaved).length;
  const { window, sealedAt, period } = sheet;
  const now = useWindowNow(usePeriod().termLine?.now, [window], ['sheet']);
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
      {!sealedAt && <WindowSentence sheet={sheet} now={now} />}
    </>
  );
}
