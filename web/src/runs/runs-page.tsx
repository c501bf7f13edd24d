import { Link, useNavigate } from 'react-router';
import { notSent } from '#core/runs';
import type { RunSummaryReply } from '#contract/runs';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { Changeable, ToChange } from '../ui/changeable';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount, showInstant } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { PlanRun } from './plan-run';
import { PlatformHabits } from './platform-habits';
import { useRuns } from './run-queries';
import { sayStanding } from './run-words';

const figure = (count: number | undefined) => (
  <span className="figures">{count === undefined ? '…' : count > 0 ? showCount(count) : '–'}</span>
);
const leftBehind = ({ counts }: RunSummaryReply) => (counts ? notSent(counts) : 0);

const columns: GridColumn<RunSummaryReply>[] = [
  {
    id: 'began',
    header: 'Began',
    width: '170px',
    sortBy: ({ startedAt }) => startedAt,
    cell: ({ startedAt }) => <b className="font-semibold">{showInstant(startedAt)}</b>,
  },
  {
    id: 'platform',
    header: 'From',
    width: '130px',
    sortBy: ({ platform }) => platform,
    cell: ({ platform }) => platform,
  },
  { id: 'period', header: 'Into', width: '120px', sortBy: ({ periodId }) => periodId, cell: ({ period }) => period },
  {
    id: 'standing',
    header: 'State',
    sortBy: ({ stage, state }) => stage + state,
    cell: (run) => (
      <span
        className={
          run.state === 'failed'
            ? 'font-semibold text-waratah'
            : run.stage === 'plan'
              ? 'font-semibold text-wattle'
              : ''
        }
      >
        {sayStanding(run)}
      </span>
    ),
  },
  {
    id: 'written',
    header: 'Written',
    width: '84px',
    align: 'right',
    sortBy: ({ counts }) => counts?.results.written ?? 0,
    cell: ({ counts }) => figure(counts?.results.written),
  },
  {
    id: 'same',
    header: 'The same',
    width: '84px',
    align: 'right',
    cell: ({ counts }) => figure(counts?.outcomes.same),
  },
  {
    id: 'not',
    header: 'Skipped',
    width: '84px',
    align: 'right',
    sortBy: leftBehind,
    cell: (run) => figure(leftBehind(run)),
  },
  {
    id: 'by',
    header: 'By',
    width: '150px',
    cell: ({ isNightly, startedBy }) => (isNightly ? <span className="text-quiet">the night</span> : startedBy),
  },
];

/** What was carried over from learning platforms, what is to be next, and what goes by itself at night. */
export function RunsPage() {
  const { schoolId, path } = useScope();
  const kept = useRuns(schoolId);
  const { data } = kept;
  const navigate = useNavigate();
  if (!data) return <PageFace queries={[kept]} />;
  const { runs, platforms, categories } = data;
  if (platforms.length === 0)
    return (
      <Page headline={<>No learning platform is connected to this school, so nothing can be carried over.</>}>
        <Panel>
          <Empty title="Nothing to carry over yet">
            <Link className="font-semibold text-eucalypt underline" to={path('platforms')}>
              Connect a platform
            </Link>{' '}
            and join its classes first. Totals also come in as files.
          </Empty>
        </Panel>
      </Page>
    );
  return (
    <Page headline={<RunsHeadline runs={runs} />}>
      <ToChange>
        <Panel label="The next run" className="px-5 py-4">
          <PlanRun platforms={platforms} />
        </Panel>
      </ToChange>
      <Changeable>
        {platforms.map((platform) => (
          <PlatformHabits key={platform.id} platform={platform} categories={categories} />
        ))}
      </Changeable>
      <Panel className="flex min-h-[180px] flex-1 flex-col">
        <DataGrid
          label="Runs"
          columns={columns}
          rows={runs}
          rowKey={({ id }) => String(id)}
          onOpen={({ id }) => void navigate(path(`runs/${id}`))}
          minWidth={940}
          empty={
            <Empty title="No run yet">
              Plan the first one above. It writes nothing before you have seen every row.
            </Empty>
          }
        />
      </Panel>
    </Page>
  );
}

function RunsHeadline({ runs }: { runs: readonly RunSummaryReply[] }) {
  const { path } = useScope();
  const last = runs.find(({ stage, state }) => stage === 'carry' && state === 'ready');
  const waiting = runs.filter(({ stage, state }) => stage === 'plan' && state === 'ready').length;
  if (!last?.endedAt)
    return (
      <>Nothing was carried over from a learning platform yet{waiting > 0 && `; ${counted(waiting, 'plan')} waits`}.</>
    );
  const left = leftBehind(last);
  return (
    <>
      {last.platform} was last carried over <Strong>{showInstant(last.endedAt)}</Strong>:{' '}
      <Figure to={path(`runs/${last.id}`)}>{counted(last.counts!.results.written, 'row')}</Figure> written
      {left > 0 && (
        <>
          ,{' '}
          <Figure tone="warns" to={path(`runs/${last.id}?show=not-sent`)}>
            {showCount(left)}
          </Figure>{' '}
          not sent
        </>
      )}
      {waiting > 0 && (
        <>
          ; <Strong tone="warns">{counted(waiting, 'plan')}</Strong> {agreeing(waiting, 'waits')} to be carried out
        </>
      )}
      .
    </>
  );
}
