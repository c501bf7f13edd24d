import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { ledgerOutcomes, rowKinds, rowResults, runReasons, type RunReasonCode } from '#core/runs';
import type { RunRowReply, RunRowsQuery } from '#contract/runs';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { ViewSwitch } from '../ui/field';
import { showInstant } from '../ui/format';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { ReasonList } from './reason-list';
import { RunActions } from './run-actions';
import { RunClasses } from './run-classes';
import { RunHeadline } from './run-headline';
import { RunLedger } from './run-ledger';
import { RunRowDrawer } from './run-row-drawer';
import { useRun } from './run-queries';

const views = [
  ['lines', 'Rows'],
  ['classes', 'Classes'],
] as const;

/** One run: what it would do or did, line by line, and what can be done with it. */
export function RunPage() {
  const opened = useRun(Number(useParams()['runId']));
  const { data: run, dataUpdatedAt } = opened;
  const { path } = useScope();
  const [search, setSearch] = useSearchParams();
  const [chosen, setChosen] = useState<RunRowReply | null>(null);
  if (!run) return <PageFace queries={[opened]} />;
  const view = search.get('view') === 'classes' ? 'classes' : 'lines';
  const query = queryOf(search);
  const showRows = (next: RunRowsQuery) => {
    setChosen(null);
    setSearch(Object.fromEntries(Object.entries(next).map(([key, value]) => [key, String(value)])));
  };
  return (
    <div className="flex min-h-0 flex-1">
      <Page
        headline={<RunHeadline run={run} at={dataUpdatedAt} onShow={showRows} />}
        actions={
          <>
            <RunActions run={run} />
            <ViewSwitch
              label="View"
              views={views}
              chosen={view}
              onChoose={(next) => setSearch(next === 'lines' ? {} : { view: next })}
            />
          </>
        }
        aside={
          <>
            {run.isNightly ? 'the nightly run' : run.startedBy}, {showInstant(run.startedAt)};{' '}
            {run.mode === 'keep' ? 'keeps' : 'replaces'} what was entered here
          </>
        }
      >
        {view === 'classes' ? (
          <RunClasses run={run} onOpen={(classId) => showRows({ classId })} />
        ) : (
          <div className="flex min-h-0 flex-1 gap-4">
            {!chosen && <ReasonList run={run} query={query} onShow={showRows} />}
            <Panel className="flex min-h-0 min-w-0 flex-1 flex-col">
              <RunLedger run={run} query={query} chosenId={chosen?.id ?? null} onChoose={setChosen} onShow={showRows} />
            </Panel>
          </div>
        )}
      </Page>
      {chosen && <RunRowDrawer run={run} row={chosen} path={path} onClose={() => setChosen(null)} />}
    </div>
  );
}

/** What of the address is a filter that there is; the rest is passed over. */
function queryOf(search: URLSearchParams): RunRowsQuery {
  const one = <Value extends string>(name: string, known: readonly Value[]) =>
    known.find((each) => each === search.get(name));
  const [outcome, kind, result] = [one('outcome', ledgerOutcomes), one('kind', rowKinds), one('result', rowResults)];
  const reason = one('reason', Object.keys(runReasons) as RunReasonCode[]);
  const classId = Number(search.get('classId')) || undefined;
  return {
    ...(outcome && { outcome }),
    ...(kind && { kind }),
    ...(result && { result }),
    ...(reason && { reason }),
    ...(classId && { classId }),
  };
}
