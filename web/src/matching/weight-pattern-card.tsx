import type { WeightState } from '#core/matching';
import type { WeightsReply } from '#contract/matching';
import type { PlatformReply } from '#contract/platforms';
import { counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Panel } from '../ui/panel';
import { useTakeWeights } from './queries';
import type { WeightPattern } from './weight-patterns';

const says: Record<WeightState, string> = {
  same: 'weighted as here',
  differ: 'weighted differently',
  open: 'with a weighted group that is not matched',
  unweighed: 'weighted on one side only, or on none',
};

interface WeightPatternCardProps {
  readonly pattern: WeightPattern;
  readonly categories: WeightsReply['categories'];
  readonly platform: PlatformReply;
  readonly onAsk: () => void;
}

/** Both sides' weights, category by category, for all classes that are weighted alike. */
export function WeightPatternCard({ pattern, categories, platform, onAsk }: WeightPatternCardProps) {
  const { periodId } = useScope();
  const take = useTakeWeights(platform.id);
  const { state, rows, classes, theirSum, from } = pattern;
  const shown = categories.flatMap((category) => {
    const row = rows.find(({ categoryId }) => categoryId === category.id);
    return row ? [{ ...row, name: category.name }] : [];
  });
  const howMany = counted(classes.length, 'class');
  const isEven = theirSum === '100';
  const names = classes.map(({ title }) => title).join('; ');
  const giveOurs = () =>
    take.mutate({
      periodId,
      classIds: classes.map(({ classId }) => classId),
      side: 'ours',
      says: `${howMany} on ${platform.name} are weighted as here.`,
    });
  return (
    <Panel label={`${howMany} ${says[state]}`} className="flex items-start gap-6 px-5 py-3.5">
      <div className="w-[250px] shrink-0">
        <h2 className="font-bold">
          {howMany} <span className={state === 'differ' ? 'text-wattle' : 'text-quiet'}>{says[state]}</span>
        </h2>
        <p className="line-clamp-2 text-[12px] text-quiet" title={names}>
          {names}
        </p>
        {state === 'differ' && !isEven && (
          <p className="text-[12px] text-waratah">Theirs add up to {theirSum}, not 100.</p>
        )}
      </div>
      <table className="table-fixed text-[13px]">
        <thead>
          <tr className="text-quiet">
            <th className="w-[190px] pr-4 text-left font-semibold">
              <span className="sr-only">Side</span>
            </th>
            {shown.map(({ categoryId, name, groups }) => (
              <th key={categoryId} className="w-[92px] px-3 text-right align-bottom font-semibold">
                {name}
                {groups > 1 && <span className="block text-[11px] font-normal">{groups} groups</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="figures">
          <tr>
            <th className="pr-4 text-left font-sans font-normal">{platform.name}</th>
            {shown.map(({ categoryId, theirs, ours }) => (
              <td
                key={categoryId}
                className={`px-3 text-right ${differs(theirs, ours) ? 'font-bold text-wattle' : ''}`}
              >
                {theirs ?? '–'}
              </td>
            ))}
          </tr>
          <tr>
            <th className="pr-4 text-left font-sans font-normal">here, by {from}</th>
            {shown.map(({ categoryId, ours }) => (
              <td key={categoryId} className="px-3 text-right">
                {ours ?? '–'}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {state === 'differ' && isEven && (
        <div className="ml-auto flex flex-col items-stretch gap-2">
          <Button writes onClick={onAsk}>
            Preview their weights…
          </Button>
          <Button writes disabled={take.isPending} onClick={giveOurs}>
            Send ours to {platform.name}
          </Button>
        </div>
      )}
    </Panel>
  );
}

function differs(theirs: string | null, ours: string | null): boolean {
  return Number(theirs ?? 0) !== Number(ours ?? 0);
}
