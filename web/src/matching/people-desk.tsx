import type { MatchDecision } from '#core/matching';
import type { MatchesReply, PersonMatchReply } from '#contract/matching';
import { agreeing, counted } from '#contract/messages';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showDay } from '../ui/format';
import { Empty, Panel } from '../ui/panel';
import { DecisionButtons } from './decision-buttons';
import { useDecide } from './queries';
import { StateMark } from './state-mark';
import { sayPerson, stateWords } from './words';

/** Those whom neither a number nor an address settles. They are proposed, never taken unasked. */
export function PeopleDesk({ reply }: { reply: MatchesReply }) {
  const decide = useDecide(reply.platform.id);
  const act = ({ id, name }: PersonMatchReply, decision: MatchDecision, target: number | null) => {
    const says =
      decision === 'joined'
        ? `${name} is joined.`
        : decision === 'ignored'
          ? `${name} is ignored.`
          : `${name} is open again.`;
    const body = { kind: 'person' as const, ids: [id], decision, target: target === null ? null : String(target) };
    decide.mutate({ decisions: [body], says });
  };
  const columns: readonly GridColumn<PersonMatchReply>[] = [
    {
      id: 'name',
      header: 'Their student',
      width: '170px',
      sortBy: ({ name }) => name,
      cell: ({ name }) => <b className="font-semibold">{name}</b>,
    },
    {
      id: 'known',
      header: 'Known there by',
      width: '140px',
      cell: ({ identifier, email, birthDate }) =>
        identifier ?? email ?? (birthDate ? `born ${showDay(birthDate)}` : 'name only'),
    },
    {
      id: 'state',
      header: 'State',
      width: '104px',
      sortBy: ({ state }) => state,
      findBy: ({ state }) => stateWords[state],
      cell: ({ state }) => <StateMark state={state} confidence={null} />,
    },
    {
      id: 'ours',
      header: 'Ours',
      width: '210px',
      cell: ({ target, candidates }) =>
        [...(target ? [target] : candidates)].map(({ id, name, number }) => (
          <span key={id} className="mr-2 whitespace-nowrap">
            {name} <span className="figures text-[12px] text-quiet">{number}</span>
          </span>
        )),
    },
    { id: 'why', header: 'Because', cell: ({ match }) => <span className="text-[13px]">{sayPerson(match)}</span> },
    {
      id: 'act',
      header: 'Decide',
      width: '150px',
      cell: (row) => (
        <DecisionButtons
          name={row.name}
          state={row.state}
          targets={row.candidates.map(({ id, number }) => ({ id, name: number }))}
          match={`${reply.platform.id}/person/${row.id}`}
          isBusy={decide.isPending}
          onDecide={(decision, to) => act(row, decision, to)}
        />
      ),
    },
  ];
  return (
    <>
      <p className="text-[13px] text-quiet">
        {counted(reply.peopleFound, 'student')} {agreeing(reply.peopleFound, 'was')} found by number or address and need
        no decision.
      </p>
      <Panel className="flex min-h-[260px] flex-1 flex-col">
        <DataGrid
          label="Students to decide"
          columns={columns}
          rows={reply.people}
          rowKey={({ id }) => String(id)}
          empty={
            <Empty title="All students matched">Each student of the platform has a number or an address of ours.</Empty>
          }
        />
      </Panel>
    </>
  );
}
