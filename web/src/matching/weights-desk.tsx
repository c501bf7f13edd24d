import { useState } from 'react';
import type { WeightsReply } from '#contract/matching';
import type { PlatformReply } from '#contract/platforms';
import { counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { Empty, Panel } from '../ui/panel';
import { useWeights } from './queries';
import { WeightEffectDialog } from './weight-effect-dialog';
import { weightPatterns, type WeightPattern } from './weight-patterns';
import { WeightPatternCard } from './weight-pattern-card';

/** How the platform and we weigh the same sections, alike ones together, and whose weights are to hold. */
export function WeightsDesk({ platform }: { platform: PlatformReply }) {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const compared = useWeights(platform.id, periodId);
  const { data: weights } = compared;
  const [asked, setAsked] = useState<WeightPattern | null>(null);
  if (!weights || !period) return <PageFace queries={[compared]} />;
  if (weights.classes.length === 0)
    return (
      <Panel>
        <Empty title="Nothing to compare yet">
          Join classes to sections that run through {period.name}; their weights are then listed here beside ours.
        </Empty>
      </Panel>
    );
  return (
    <>
      <p className="text-[13px]">{sumUp(weights, platform.name)}</p>
      <div className="min-h-0 flex-1 space-y-3 overflow-auto" tabIndex={0} role="region" aria-label="Weights compared">
        {weightPatterns(weights.classes).map((pattern) => (
          <WeightPatternCard
            key={pattern.key}
            pattern={pattern}
            categories={weights.categories}
            platform={platform}
            onAsk={() => setAsked(pattern)}
          />
        ))}
      </div>
      {asked && <WeightEffectDialog platform={platform} pattern={asked} onClose={() => setAsked(null)} />}
    </>
  );
}

function sumUp({ classes }: WeightsReply, platform: string): string {
  const count = (state: string) => classes.filter((each) => each.state === state).length;
  const [same, differ, open] = [count('same'), count('differ'), count('open')];
  return [
    `${counted(classes.length, 'joined class')} of ${platform}:`,
    `${same} weighted as here,`,
    `${differ} weighted differently`,
    open > 0 ? `and ${open} whose groups are not all joined.` : 'and none left open.',
  ].join(' ');
}
