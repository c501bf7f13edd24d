import type { MatchState } from '#core/matching';
import type { ClassMatchReply, MatchesReply } from '#contract/matching';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Empty, Panel } from '../ui/panel';
import { rowsOfClass, type JoinRow } from './join-rows';
import { StateMark } from './state-mark';
import { stateWords } from './words';
import { MiddleCut } from '../ui/middle-cut';

interface TableRow {
  readonly joined: ClassMatchReply;
  readonly section: string;
  readonly groups: readonly JoinRow[];
}

const looks: Record<MatchState, string> = {
  joined: 'border-hairline bg-eucalypt-soft',
  proposed: 'border-wattle-fill',
  conflicting: 'border-waratah bg-waratah-soft',
  unmatched: 'border-waratah',
  ignored: 'border-dashed border-control text-quiet line-through',
};

/** Every class with its groups under the category that each feeds; what feeds none stands in the last column. */
export function SectionsTable({ reply, onOpen }: { reply: MatchesReply; onOpen: (id: number) => void }) {
  const sections = new Map(reply.sections.map(({ id, name }) => [id, name]));
  const rows = reply.classes.map((joined): TableRow => ({
    joined,
    section: joined.state === 'joined' ? (sections.get(joined.sectionId!) ?? '') : '',
    groups: rowsOfClass(reply.names, 'group', joined.id),
  }));
  const columns: readonly GridColumn<TableRow>[] = [
    {
      id: 'class',
      header: 'Class',
      width: '220px',
      sortBy: ({ joined }) => joined.title,
      cell: ({ joined }) => (
        <b className="font-semibold">
          <MiddleCut text={joined.title} />
        </b>
      ),
    },
    {
      id: 'section',
      header: 'Our section',
      width: '150px',
      sortBy: ({ section, joined }) => `${joined.state} ${section}`,
      cell: ({ section, joined }) =>
        section || <StateMark state={joined.state} confidence={joined.best?.confidence ?? null} />,
    },
    ...reply.targets.group.map((target): GridColumn<TableRow> => ({
      id: target.key,
      header: target.name,
      width: '122px',
      sortBy: ({ groups }) => groups.filter((group) => feeds(group, target.key)).length,
      findBy: ({ groups }) => namesOf(groups.filter((group) => feeds(group, target.key))),
      cell: ({ groups }) => <Chips groups={groups.filter((group) => feeds(group, target.key))} />,
    })),
    {
      id: 'none',
      header: 'Feeds none',
      sortBy: ({ groups }) => groups.filter((group) => feedsOf(group) === null).length,
      findBy: ({ groups }) => namesOf(groups.filter((group) => feedsOf(group) === null)),
      cell: ({ groups }) => <Chips groups={groups.filter((group) => feedsOf(group) === null)} />,
    },
  ];
  return (
    <Panel className="flex min-h-[300px] flex-1 flex-col">
      <DataGrid
        label="Classes and their groups"
        columns={columns}
        rows={rows}
        rowKey={({ joined }) => String(joined.id)}
        onOpen={({ joined }) => onOpen(joined.id)}
        minWidth={370 + reply.targets.group.length * 122 + 120}
        empty={<Empty title="No class read yet">Read the platform under Platforms.</Empty>}
      />
    </Panel>
  );
}

function feedsOf({ target, state, best }: JoinRow): string | null {
  return target ?? (state === 'proposed' ? (best?.key ?? null) : null);
}

function feeds(group: JoinRow, key: string): boolean {
  return feedsOf(group) === key;
}

function Chips({ groups }: { groups: readonly JoinRow[] }) {
  return (
    <span className="flex gap-1 overflow-hidden">
      {groups.map(({ key, name, state }) => (
        <span
          key={key}
          title={`${name}: ${stateWords[state]}`}
          className={`relative truncate rounded border px-1.5 text-[12px] ${looks[state]}`}
        >
          {name}
          <span className="sr-only">, {stateWords[state]}</span>
        </span>
      ))}
    </span>
  );
}

function namesOf(groups: TableRow['groups']): string {
  return groups.map(({ name }) => name).join(' ');
}
