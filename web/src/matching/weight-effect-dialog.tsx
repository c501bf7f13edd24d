import type { PlatformReply } from '#contract/platforms';
import { counted } from '#contract/messages';
import { EffectSentence } from '../calculation/policy/effect-sentence';
import { ValueEffect } from '../calculation/value-effect';
import { Awaited } from '../shell/awaited';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { useTakeWeights, useWeightsEffect } from './queries';
import type { WeightPattern } from './weight-patterns';

interface WeightEffectDialogProps {
  readonly platform: PlatformReply;
  readonly pattern: WeightPattern;
  readonly onClose: () => void;
}

/** What taking the platform's weights would do to the grades of the period, before it is done. */
export function WeightEffectDialog({ platform, pattern, onClose }: WeightEffectDialogProps) {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const request = { periodId, classIds: pattern.classes.map(({ classId }) => classId) };
  const effect = useWeightsEffect(platform.id, request);
  const take = useTakeWeights(platform.id);
  const howMany = counted(pattern.classes.length, 'section');
  const periodName = period?.name ?? '';
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`What the weights of ${platform.name} would do in ${howMany}`}
      description={effect.data && <EffectSentence effect={effect.data} periodName={periodName} />}
      footer={
        <>
          <Button
            look="main"
            disabled={!effect.data || take.isPending}
            onClick={() =>
              take.mutate(
                { ...request, side: 'theirs', says: `${howMany} are weighted as on ${platform.name}.` },
                { onSuccess: onClose },
              )
            }
          >
            Use their weights for {periodName}
          </Button>
          <Button onClick={onClose}>Leave ours</Button>
        </>
      }
    >
      <Awaited query={effect} waiting={`Calculating the grade books of ${periodName}`}>
        {(data) => <ValueEffect effect={data} />}
      </Awaited>
    </Dialog>
  );
}
