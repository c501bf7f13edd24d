import { useState } from 'react';
import { toast } from 'sonner';
import { exchangeOutcomes } from '#core/exchange';
import type { ExchangeImportReply, ExchangeRowsQuery } from '#contract/exchange';
import { agreeing, counted, listed } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { Button, Key } from '../ui/button';
import { showCount } from '../ui/format';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { ExchangeRows } from './exchange-rows';
import { PreviewHeadline } from './preview-headline';
import { useExchange, useExchangeActions, useImported } from './queries';
import { fileNames, outcomeInks, outcomeNames, rowsWritten } from './words';

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
  const writes = zip ? rowsWritten(zip) : 0;
  const canTake = zip?.previewId != null && writes > 0 && !accept.isPending;
  useImported(zip, (imported) => {
    toast.success(`${counted(rowsWritten(imported), 'row')} imported.`);
    onTaken?.();
  });
  const take = () => {
    if (canTake) accept.mutate(zip.previewId, { onError: showProblem });
  };
  useKeys([{ key: 'Ctrl+Enter', says: 'import the zip', act: take }]);
  if (!zip) return <PageFace queries={[read]} />;
  return (
    <Page
      headline={<PreviewHeadline zip={zip} at={read.dataUpdatedAt} onShow={setQuery} />}
      below={belowOf(zip)}
      actions={
        <>
          {zip.previewId !== null && writes > 0 && (
            <Button look="main" disabled={!canTake} onClick={take}>
              {accept.isPending ? 'Beginning…' : `Import ${counted(writes, 'row')}`} <Key>Ctrl ↵</Key>
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

/** What is to be known of a zip besides its rows. */
function belowOf({ status, problem, encodings }: ExchangeImportReply): string | undefined {
  if (status === 'accepting') return 'You can go on working, or close this page: it goes on by itself.';
  if (problem) return `The import stopped: ${problem} What was written stays; import again to write the rest.`;
  const [first] = encodings;
  if (!first) return undefined;
  const files = listed(encodings.map(({ file }) => file));
  return `${files} ${agreeing(encodings.length, 'is')} not in UTF-8, as OneRoster wants, and was read as ${first.encoding}: look at names with accents before you import.`;
}
