import { useState } from 'react';
import { isOpen, type MatchDecision } from '#core/matching';
import type { ClassMatchReply, NameMatchReply, TargetReply } from '#contract/matching';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import { showNames } from '../ui/format';
import { sayRow, type JoinRow } from './join-rows';
import { kindWords, stateWords } from './words';

interface DecisionStripProps {
  readonly row: JoinRow;
  readonly targets: readonly TargetReply[];
  readonly classes: readonly ClassMatchReply[];
  readonly names: readonly NameMatchReply[];
  readonly isBusy: boolean;
  readonly onDecide: (decision: MatchDecision, target: string | null) => void;
}

/** The sentence that decides about the chosen name, and where it occurs. */
export function DecisionStrip({ row, targets, classes, names, isBusy, onDecide }: DecisionStripProps) {
  const [target, setTarget] = useState(row.target ?? row.best?.key ?? row.between[0]?.key ?? '');
  const isDecided = !isOpen(row.state);
  const isSame = row.state === 'joined' && row.target === target;
  const nameOf = (key: string) => targets.find((each) => each.key === key)?.name ?? key;
  const { theirs, ours } = kindWords[row.kind];
  return (
    <section aria-label="Decision" className="border-t border-hairline px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <p className="text-[15px]">
          The {theirs} <b>{row.name}</b>
          {row.kind !== 'letter' && <> in {counted(row.ids.length, 'class')}</>} is our {ours}{' '}
          <Choice label={`Our ${ours}`} value={target} onChange={(event) => setTarget(event.target.value)}>
            <option value="">…</option>
            {targets.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        </p>
        <span className="flex gap-2">
          <Button look="main" disabled={isBusy || target === '' || isSame} onClick={() => onDecide('joined', target)}>
            Join
          </Button>
          <Button writes disabled={isBusy || row.state === 'ignored'} onClick={() => onDecide('ignored', null)}>
            Ignore
          </Button>
          {isDecided && (
            <Button writes look="quiet" disabled={isBusy} onClick={() => onDecide('open', null)}>
              Open again
            </Button>
          )}
        </span>
      </div>
      <p className="mt-1 truncate text-[13px] text-quiet">
        {isDecided
          ? `Now ${stateWords[row.state]}. `
          : row.state === 'proposed'
            ? `Proposed: ${sayRow(row, nameOf)}. `
            : ''}
        {row.kind === 'letter' ? 'Labels apply to the whole platform.' : whereOf(row, classes, names)}
      </p>
    </section>
  );
}

function whereOf(
  { ids, kind }: JoinRow,
  classes: readonly ClassMatchReply[],
  names: readonly NameMatchReply[],
): string {
  const own = new Set(ids);
  const classIds = new Set(
    names.flatMap((each) =>
      each.kind === kind ? each.places.filter(({ id }) => own.has(id)).map(({ classId }) => classId) : [],
    ),
  );
  return `In ${showNames(classes.filter(({ id }) => classIds.has(id)).map(({ title }) => title))}.`;
}
