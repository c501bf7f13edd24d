import { canCarryOut } from '#core/runs';
import type { RunClassReply, RunReply } from '#contract/runs';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount } from '../ui/format';
import { Empty, Panel } from '../ui/panel';
import { useRunActions } from './run-queries';

interface RunClassesProps {
  readonly run: RunReply;
  readonly onOpen: (classId: number) => void;
}

const figure = (count: number) => <span className="figures">{count === 0 ? '–' : showCount(count)}</span>;

/** The classes of the run with what of each is written and what is not; whole classes are taken in or left out here. */
export function RunClasses({ run, onOpen }: RunClassesProps) {
  const { pick } = useRunActions(run.id);
  const mayPick = canCarryOut(run);
  const columns: readonly GridColumn<RunClassReply>[] = [
    {
      id: 'pick',
      header: <span className="sr-only">Picked</span>,
      width: '44px',
      align: 'center',
      cell: ({ classId, title, toWrite, picked }) =>
        toWrite > 0 && (
          <input
            type="checkbox"
            aria-label={`Carry out ${title}`}
            className="size-4 accent-eucalypt"
            disabled={!mayPick}
            checked={picked > 0}
            onClick={(event) => event.stopPropagation()}
            onChange={({ target }) => pick.mutate({ kind: 'class', keys: [String(classId)], isPicked: target.checked })}
          />
        ),
    },
    {
      id: 'title',
      header: `Class on ${run.platform}`,
      sortBy: ({ title }) => title,
      cell: ({ title }) => <b className="font-semibold">{title}</b>,
    },
    {
      id: 'section',
      header: 'Our section',
      sortBy: ({ section }) => section ?? '',
      cell: ({ section }) => section ?? <span className="text-quiet">not joined</span>,
    },
    {
      id: 'write',
      header: canCarryOut(run) ? 'To write' : 'Planned',
      width: '100px',
      align: 'right',
      sortBy: ({ toWrite }) => toWrite,
      cell: ({ toWrite }) => figure(toWrite),
    },
    {
      id: 'picked',
      header: 'Picked',
      width: '100px',
      align: 'right',
      sortBy: ({ picked }) => picked,
      cell: ({ picked }) => figure(picked),
    },
    {
      id: 'not',
      header: 'Skipped',
      width: '100px',
      align: 'right',
      sortBy: ({ notSent }) => notSent,
      cell: ({ notSent }) => <span className={notSent > 0 ? 'text-waratah' : ''}>{figure(notSent)}</span>,
    },
  ];
  return (
    <Panel className="flex min-h-0 flex-1 flex-col">
      <DataGrid
        label="Classes of the run"
        columns={columns}
        rows={run.classes}
        rowKey={({ classId }) => String(classId)}
        onOpen={({ classId }) => onOpen(classId)}
        empty={<Empty title="No class" />}
      />
    </Panel>
  );
}
