import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { RunsReply } from '#contract/runs';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import { usePlanRun } from './run-queries';

/** What a run may carry over, as the sentence names it. */
export const carriedParts = [
  ['both', 'assignments, scores and totals'],
  ['work', 'assignments and scores'],
  ['totals', 'totals as posted marks'],
] as const;
export type CarriedPart = (typeof carriedParts)[number][0];

export const choicesOf = (part: CarriedPart) => ({ carriesWork: part !== 'totals', carriesTotals: part !== 'work' });
export const partOf = ({ carriesWork, carriesTotals }: { carriesWork: boolean; carriesTotals: boolean }): CarriedPart =>
  carriesWork && carriesTotals ? 'both' : carriesWork ? 'work' : 'totals';

/** A sentence that says what the next run does, with the choices inside it. */
export function PlanRun({ platforms }: { platforms: RunsReply['platforms'] }) {
  const { path, periodId } = useScope();
  const { period } = usePeriod();
  const navigate = useNavigate();
  const plan = usePlanRun();
  const [platformId, setPlatformId] = useState(platforms[0]!.id);
  const [part, setPart] = useState<CarriedPart>('work');
  const [mode, setMode] = useState<'keep' | 'replace'>('keep');
  const begin = () =>
    plan.mutate(
      { platformId, periodId, mode, ...choicesOf(part) },
      { onSuccess: ({ id }) => void navigate(path(`runs/${id}`)) },
    );
  return (
    <div className="flex items-center gap-4">
      <p className="flex-1 text-[15px] leading-7">
        Carry over the{' '}
        <Choice label="What" value={part} onChange={({ target }) => setPart(target.value as CarriedPart)}>
          {carriedParts.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </Choice>{' '}
        of{' '}
        <Choice label="Platform" value={platformId} onChange={({ target }) => setPlatformId(Number(target.value))}>
          {platforms.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>{' '}
        into <b>{period?.name}</b>, and{' '}
        <Choice label="What is here" value={mode} onChange={({ target }) => setMode(target.value as typeof mode)}>
          <option value="keep">keep</option>
          <option value="replace">replace</option>
        </Choice>{' '}
        what was entered here by hand.
        <span className="block text-[13px] leading-5 text-quiet">
          First comes the plan: every row with what becomes of it and why. Nothing is written before you carry it out.
        </span>
      </p>
      <Button look="main" disabled={plan.isPending} onClick={begin}>
        Plan the run
      </Button>
    </div>
  );
}
