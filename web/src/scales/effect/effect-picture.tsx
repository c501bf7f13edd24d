import type { ValueEffectReply } from '#contract/calculation';
import { EffectChart } from './effect-chart';
import { EffectMatrix } from './effect-matrix';

/** From which label to which, and how many have each: beside one another, or on a narrow screen below. */
export function EffectPicture({ effect }: { effect: Pick<ValueEffectReply, 'moves' | 'bands'> }) {
  return (
    <div className="grid gap-6 min-[900px]:grid-cols-[minmax(0,1fr)_300px]">
      <div role="group" aria-label="Labels now and then" tabIndex={0} className="overflow-x-auto">
        <EffectMatrix effect={effect} bands={effect.bands} />
      </div>
      <EffectChart effect={effect} bands={effect.bands} />
    </div>
  );
}
