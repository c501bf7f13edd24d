import { byNeed, type MatchDecision } from '#core/matching';
import type { ClassMatchReply, MatchesReply } from '#contract/matching';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Empty, Panel } from '../ui/panel';
import { Select } from '../ui/choice/select';
import { DecisionButtons } from './decision-buttons';
import { useDecide } from './queries';
import { sayClass, stateWords } from './words';
import { StateMark } from './state-mark';
import { MiddleCut } from '../ui/middle-cut';

/** Every class of the platform beside the section it is, or may be. */
export function ClassesDesk({ reply, onOpen }: { reply: MatchesReply; onOpen: (id: number) => void }) {
  const decide = useDecide(reply.platform.id);
  const nameOf = new Map(reply.sections.map(({ id, name }) => [id, name]));
  const taken = new Set(reply.classes.flatMap(({ state, sectionId }) => (state === 'joined' ? [sectionId] : [])));
  const act = (row: ClassMatchReply, decision: MatchDecision, target: number | null) => {
    const says =
      decision === 'joined'
        ? `${row.title} is ${nameOf.get(target!)}.`
        : decision === 'ignored'
          ? `${row.title} is ignored.`
          : `${row.title} is open again.`;
    const body = { kind: 'class' as const, ids: [row.id], decision, target: target === null ? null : String(target) };
    decide.mutate({ decisions: [body], says });
  };
  const rows = reply.classes.toSorted(byNeed);
  const rank = new Map(rows.map(({ id }, at) => [id, at]));
  const columns: readonly GridColumn<ClassMatchReply>[] = [
    {
      id: 'title',
      header: 'Their class',
      width: '236px',
      sortBy: ({ title }) => title,
      cell: ({ id, title }) => (
        <button type="button" className="w-full text-left font-semibold hover:underline" onClick={() => onOpen(id)}>
          <MiddleCut text={title} />
        </button>
      ),
    },
    {
      id: 'students',
      header: 'Students',
      width: '74px',
      align: 'right',
      sortBy: ({ students }) => students,
      cell: ({ students }) => <span className="figures">{students}</span>,
    },
    {
      id: 'state',
      header: 'State',
      width: '130px',
      sortBy: ({ id }) => rank.get(id)!,
      findBy: ({ state }) => stateWords[state],
      cell: ({ state, best }) => <StateMark state={state} confidence={best?.confidence ?? null} />,
    },
    {
      id: 'section',
      header: 'Our section',
      width: '208px',
      sortBy: (row) => nameOf.get(likely(row) ?? 0) ?? '',
      findBy: (row) => nameOf.get(likely(row) ?? 0) ?? '',
      cell: (row) => (
        <Select
          aria-label={`Section of ${row.title}`}
          className="h-[26px] w-full rounded border border-hairline bg-surface px-1 hover:border-control"
          value={likely(row) ?? ''}
          onChange={({ target }) => target.value && act(row, 'joined', Number(target.value))}
        >
          <option value="">no section</option>
          {reply.sections
            .filter(({ id }) => id === likely(row) || !taken.has(id))
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </Select>
      ),
    },
    {
      id: 'act',
      header: 'Decide',
      width: '146px',
      cell: (row) => {
        const target = likely(row);
        return (
          <DecisionButtons
            name={row.title}
            state={row.state}
            targets={target === null ? [] : [{ id: target, name: nameOf.get(target) ?? '' }]}
            match={`${reply.platform.id}/class/${row.id}`}
            isBusy={decide.isPending}
            onDecide={(decision, to) => act(row, decision, to)}
          />
        );
      },
    },
    { id: 'why', header: 'Because', cell: (row) => <span className="text-[13px]">{sayClass(row)}</span> },
  ];
  return (
    <Panel className="flex min-h-[300px] flex-1 flex-col">
      <DataGrid
        label="Classes"
        columns={columns}
        rows={rows}
        rowKey={({ id }) => String(id)}
        empty={
          <Empty title="No class read yet">Read the platform under Platforms; its classes are then listed here.</Empty>
        }
      />
    </Panel>
  );
}

/** The section a class is joined to, is proposed for, or is one of several to claim. */
function likely({ sectionId, best, between }: ClassMatchReply): number | null {
  return sectionId ?? best?.sectionId ?? between[0]?.sectionId ?? null;
}
