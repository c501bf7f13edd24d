import type { ExchangeOutcome } from '#core/exchange';
import type { ExchangeImportReply, ExchangeRowsQuery } from '#contract/exchange';
import { agreeing, counted } from '#contract/messages';
import { shareDone } from '../files/words';
import { useTimeLeft } from '../runs/use-time-left';
import { showCount } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import { rowsThat, workOfZip } from './words';

interface PreviewHeadlineProps {
  readonly zip: ExchangeImportReply;
  /** When it was told, in milliseconds. */
  readonly at: number;
  readonly onShow: (query: ExchangeRowsQuery) => void;
}

/** How a zip stands, in one sentence. */
export function PreviewHeadline({ zip, at, onShow }: PreviewHeadlineProps) {
  const left = useTimeLeft({ ...workOfZip(zip), at });
  const sum = (outcome: ExchangeOutcome) => rowsThat(outcome, zip);
  const [added, changed, deleted, refused] = [sum('new'), sum('changed'), sum('delete'), sum('refuse')];
  const figure = (count: number, outcome: ExchangeOutcome, words: string, tone: 'so' | 'warns' | 'blocks' = 'so') => (
    <>
      <FigureButton tone={tone} onClick={() => onShow({ outcome })}>
        {showCount(count)}
      </FigureButton>{' '}
      {words}
    </>
  );
  if (zip.status === 'accepting')
    return (
      <>
        Importing <Strong>{zip.fileName}</Strong>: {shareDone(zip)} of {counted(zip.stepCount, 'row')}
        {left !== null && <>, {left} left</>}.
      </>
    );
  if (zip.status === 'accepted')
    return (
      <>
        <Strong>{zip.fileName}</Strong> was imported: {counted(added, 'row')} new, {showCount(changed)} changed,{' '}
        {showCount(deleted)} deleted.
      </>
    );
  if (added + changed + deleted === 0)
    return (
      <>
        All that {zip.fileName} says is here already
        {refused > 0 && <>, but for {figure(refused, 'refuse', 'refused', 'blocks')}</>}.
      </>
    );
  return (
    <>
      {zip.fileName} brings {figure(added, 'new', added === 1 ? 'new row' : 'new rows')}
      {changed > 0 && <>, {figure(changed, 'changed', 'changed')}</>}
      {deleted > 0 && <>, {figure(deleted, 'delete', 'to be deleted', 'warns')}</>}
      {refused > 0 ? (
        <>; {figure(refused, 'refuse', `${agreeing(refused, 'is')} refused`, 'blocks')}</>
      ) : (
        '; none is refused'
      )}
      .
    </>
  );
}
