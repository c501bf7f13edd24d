import type { BoardReply } from '#contract/board';
import { agreeing, counted } from '#contract/messages';
import { WindowCloses } from '../posting/window-sentence';
import { showCount, showDeadline } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import type { BoardFilter, BoardSheet } from './board-view';

interface BoardHeadlineProps {
  readonly board: BoardReply;
  readonly periodName: string;
  readonly now: string;
  /** Those of the chosen item, whatever is looked for among them. */
  readonly sheets: readonly BoardSheet[];
  readonly onShow: (filter: BoardFilter) => void;
}

/** How many sheets are signed off, how many are late or wait, and until when. */
export function BoardHeadline({ board, periodName, now, sheets, onShow }: BoardHeadlineProps) {
  const due = sheets.filter(({ isDue }) => isDue);
  const open = due.filter(({ isOpen }) => isOpen);
  const late = due.filter((sheet) => sheet.late > 0);
  if (board.sealedAt !== null) return <>{periodName} is sealed. Its grades change only by amendment.</>;
  if (due.length === 0) {
    const next = nextOpening(board, now);
    return (
      <>
        Nothing of {periodName} is due yet
        {next ? (
          <>
            : the first window opens <Strong tone="informs">{showDeadline(next, now)}</Strong>.
          </>
        ) : (
          ', and no window is set to open.'
        )}
      </>
    );
  }
  return (
    <>
      {periodName}:{' '}
      <Strong>
        {showCount(due.length - open.length)} of {counted(due.length, 'sheet')}
      </Strong>{' '}
      {agreeing(due.length, 'is')} signed off
      {open.length > 0 && (
        <>
          ;{' '}
          <FigureButton tone="warns" onClick={() => onShow('open')}>
            {showCount(open.length)}
          </FigureButton>{' '}
          {agreeing(open.length, 'is')} not
        </>
      )}
      {late.length > 0 && (
        <>
          , and{' '}
          <FigureButton tone="blocks" onClick={() => onShow('late')}>
            {showCount(late.length)}
          </FigureButton>{' '}
          {agreeing(late.length, 'is')} late
        </>
      )}
      . {closing(board, now)}
    </>
  );
}

function nextOpening({ items }: BoardReply, now: string): string | undefined {
  return items
    .flatMap(({ window }) => window?.opensAt ?? [])
    .filter((opensAt) => opensAt > now)
    .toSorted()[0];
}

/** Of the windows that are open, the one that closes first. */
function closing({ items }: BoardReply, now: string) {
  const open = items.flatMap(({ window }) =>
    window?.state === 'open' && window.closesAt > now ? [window.closesAt] : [],
  );
  const [first] = open.toSorted();
  if (!first) return 'The posting window is closed.';
  return <WindowCloses closesAt={first} now={now} />;
}
