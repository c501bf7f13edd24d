import { useState } from 'react';
import { isOpen, type MatchDecision } from '#core/matching';
import type { MatchesReply, NameKind } from '#contract/matching';
import { counted } from '#contract/messages';
import { Empty, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { DecisionStrip } from './decision-strip';
import { JoinBoard } from './join-board';
import { rowsOfClass, rowsOverAll, type JoinRow } from './join-rows';
import { useDecide } from './queries';
import { kindWords } from './words';

interface NamesDeskProps {
  readonly reply: MatchesReply;
  readonly kind: NameKind;
  /** The one class whose names are shown; over all classes when it is null. */
  readonly classId: number | null;
}

/** The names of a kind joined to ours, one after the other: a decision holds wherever the name occurs. */
export function NamesDesk({ reply, kind, classId }: NamesDeskProps) {
  const decide = useDecide(reply.platform.id);
  const rows = classId === null ? rowsOverAll(reply.names, kind) : rowsOfClass(reply.names, kind, classId);
  const targets = reply.targets[kind];
  const [chosenKey, setChosenKey] = useState<string | null>(null);
  const chosen = rows.find(({ key }) => key === chosenKey) ?? rows[0];
  const words = kindWords[kind];

  const act = (row: JoinRow, decision: MatchDecision, target: string | null) => {
    const ids = !isOpen(row.state) || decision === 'open' ? row.ids : row.openIds;
    const to = targets.find(({ key }) => key === target)?.name;
    const says =
      decision === 'joined'
        ? `"${row.name}" is ${to} in ${counted(ids.length, 'place')}.`
        : decision === 'ignored'
          ? `"${row.name}" is ignored in ${counted(ids.length, 'place')}.`
          : `"${row.name}" is open again.`;
    const next = rows[rows.indexOf(row) + 1] ?? rows[0];
    // At once, so that a key pressed before the answer is about the next name and not about this one again.
    setChosenKey(next?.key ?? null);
    decide.mutate({ decisions: [{ kind, ids: [...ids], decision, target }], says });
  };
  const step = (by: number) => {
    const at = chosen ? rows.indexOf(chosen) : 0;
    setChosenKey(rows[Math.min(rows.length - 1, Math.max(0, at + by))]?.key ?? null);
  };
  useKeys([
    { key: 'j', says: 'next name', act: () => step(1) },
    { key: 'k', says: 'name before', act: () => step(-1) },
    { key: 'n', says: 'next name that is open', act: () => setChosenKey(nextOpen(rows, chosen)?.key ?? null) },
    ...targets.slice(0, 9).map((target, at) => ({
      key: String(at + 1),
      says: `join to ${target.name}`,
      act: () => chosen && act(chosen, 'joined', target.key),
    })),
    { key: 'x', says: 'ignore the name', act: () => chosen && act(chosen, 'ignored', null) },
  ]);
  if (rows.length === 0)
    return (
      <Panel>
        <Empty title={`No ${words.theirs} here`}>
          {reply.platform.name} tells of none{classId === null ? '' : ' in this class'}.
        </Empty>
      </Panel>
    );
  return (
    <Panel className="flex min-h-0 flex-1 flex-col">
      <JoinBoard
        rows={rows}
        targets={targets}
        chosenKey={chosen?.key ?? null}
        onChoose={setChosenKey}
        heads={[
          `Theirs: ${words.theirs}${kind === 'letter' ? '' : ', classes that use it'}${kind === 'group' ? ', weight' : ''}`,
          `Ours: ${words.ours}${kind === 'group' ? ' and weight' : ''}`,
        ]}
      />
      {chosen && (
        <DecisionStrip
          key={`${chosen.key} ${chosen.state} ${chosen.target}`}
          row={chosen}
          targets={targets}
          classes={reply.classes}
          names={reply.names}
          isBusy={decide.isPending}
          onDecide={(decision, target) => act(chosen, decision, target)}
        />
      )}
    </Panel>
  );
}

function nextOpen(rows: readonly JoinRow[], chosen: JoinRow | undefined): JoinRow | undefined {
  const at = chosen ? rows.indexOf(chosen) : -1;
  return [...rows.slice(at + 1), ...rows.slice(0, at + 1)].find(({ openIds }) => openIds.length > 0);
}
