import { useState } from 'react';
import { toast } from 'sonner';
import { exchangeOutcomes, isTaking, type ExchangeOutcome } from '#core/exchange';
import type { ExchangeImportReply, ExchangeRowsQuery } from '#contract/exchange';
import { counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { Button, Key } from '../ui/button';
import { showCount } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { ExchangeRows } from './exchange-rows';
import { useExchange, useExchangeActions } from './queries';
import { fileNames, outcomeInks, outcomeNames } from './words';

interface ExchangePreviewProps {
  readonly id: number;
  readonly onClose: () => void;
  /** Called once it is taken in. */
  readonly onTaken?: () => void;
}

/** A zip file by file, with what becomes of every row, and the decision. */
export function ExchangePreview({ id, onClose, onTaken }: ExchangePreviewProps) {
  const read = useExchange(id);
  const { data: zip } = read;
  const { accept, discard } = useExchangeActions(id);
  const [query, setQuery] = useState<ExchangeRowsQuery>({});
  const sum = (outcome: ExchangeOutcome) => zip?.files.reduce((total, { counts }) => total + counts[outcome], 0) ?? 0;
  const writes = exchangeOutcomes.filter(isTaking).reduce((total, outcome) => total + sum(outcome), 0);
  const canTake = zip?.previewId != null && writes > 0 && !accept.isPending;
  const take = () => {
    if (!canTake) return;
    accept.mutate(zip.previewId, {
      onSuccess: () => {
        toast.success(`${counted(writes, 'row')} imported.`);
        onTaken?.();
      },
      onError: showProblem,
    });
  };
  useKeys([{ key: 'Ctrl+Enter', says: 'import the zip', act: take }]);
  if (!zip) return <PageFace queries={[read]} />;
  return (
    <Page
      headline={<PreviewHeadline zip={zip} sum={sum} onShow={setQuery} />}
      actions={
        <>
          {zip.previewId !== null && (
            <Button look="main" disabled={!canTake} onClick={take}>
              {accept.isPending ? 'Importing…' : `Import ${counted(writes, 'row')}`} <Key>Ctrl ↵</Key>
            </Button>
          )}
          {zip.status === 'read' && (
            <Button onClick={() => discard.mutate(undefined, { onSuccess: onClose, onError: showProblem })}>
              Discard
            </Button>
          )}
          <Button look="quiet" onClick={onClose}>
            Back to the zips
          </Button>
        </>
      }
      aside={
        <>
          {zip.fileName}, OneRoster {zip.version}
          {zip.passedOver.length > 0 && <>; skipped: {zip.passedOver.join(', ')}</>}
        </>
      }
    >
      <div className="flex min-h-0 flex-1 gap-4">
        <Panel label="Files" className="w-[300px] shrink-0 overflow-auto py-2 text-[13px]">
          {zip.files.map(({ file, rows, counts, mode }) => (
            <section key={file} className="mb-1.5 px-4 py-1">
              <button
                type="button"
                aria-pressed={query.file === file && query.outcome === undefined}
                className="flex w-full justify-between font-semibold hover:text-eucalypt aria-pressed:text-eucalypt"
                onClick={() => setQuery({ file })}
              >
                <span>
                  {fileNames[file]} <span className="font-normal text-quiet">{mode === 'delta' && 'delta'}</span>
                </span>
                <span className="figures">{showCount(rows)}</span>
              </button>
              <p className="flex flex-wrap gap-x-3 text-[12px]">
                {exchangeOutcomes
                  .filter((outcome) => counts[outcome] > 0)
                  .map((outcome) => (
                    <button
                      key={outcome}
                      type="button"
                      aria-pressed={query.file === file && query.outcome === outcome}
                      className={`${outcomeInks[outcome]} hover:underline aria-pressed:font-bold`}
                      onClick={() => setQuery({ file, outcome })}
                    >
                      <span className="figures">{showCount(counts[outcome])}</span> {outcomeNames[outcome]}
                    </button>
                  ))}
              </p>
            </section>
          ))}
        </Panel>
        <Panel className="flex min-h-0 min-w-0 flex-1 flex-col">
          <ExchangeRows zip={zip} query={query} onShow={setQuery} />
        </Panel>
      </div>
    </Page>
  );
}

interface HeadlineProps {
  readonly zip: ExchangeImportReply;
  readonly sum: (outcome: ExchangeOutcome) => number;
  readonly onShow: (query: ExchangeRowsQuery) => void;
}

function PreviewHeadline({ zip, sum, onShow }: HeadlineProps) {
  const [added, changed, deleted, refused] = [sum('new'), sum('changed'), sum('delete'), sum('refuse')];
  const figure = (count: number, outcome: ExchangeOutcome, words: string, tone: 'so' | 'warns' | 'blocks' = 'so') => (
    <>
      <FigureButton tone={tone} onClick={() => onShow({ outcome })}>
        {showCount(count)}
      </FigureButton>{' '}
      {words}
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
      {refused > 0 ? <>; {figure(refused, 'refuse', 'are refused', 'blocks')}</> : '; none is refused'}.
    </>
  );
}
