import type { PolicyBody } from '#contract/calculation';
import type { PolicyPlace } from '#core/calculation';
import { counted } from '#contract/messages';
import { Awaited } from '../../shell/awaited';
import { useScope } from '../../shell/scope';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { showCount } from '../../ui/format';
import { EffectSentence } from './effect-sentence';
import { ValueEffect } from '../value-effect';
import { usePolicyEffect } from '../queries';

interface PolicyEffectDialogProps {
  readonly name: string;
  readonly place: PolicyPlace;
  /** Null: the place would inherit again. */
  readonly body: PolicyBody | null;
  readonly periodName: string;
  readonly canSave: boolean;
  readonly saveWords: string;
  readonly onSave: () => void;
  readonly onClose: () => void;
}

/** What a policy would do to all the grade books it would hold for, before it is saved. */
export function PolicyEffectDialog(props: PolicyEffectDialogProps) {
  const { name, place, body, periodName, canSave, saveWords, onSave, onClose } = props;
  const { schoolId, periodId } = useScope();
  const effect = usePolicyEffect(schoolId, { ...place, policy: body, inPeriodId: periodId });
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={body ? `What the draft for ${name} would do` : `What would follow if ${name} inherits again`}
      description={effect.data && <EffectSentence effect={effect.data} periodName={periodName} />}
      footer={
        <>
          <Button look="main" disabled={!canSave || !effect.data} onClick={onSave}>
            {saveWords}
          </Button>
          <Button onClick={onClose}>Back</Button>
          {effect.data && (
            <span className="ml-auto text-[12px] text-quiet">
              {counted(effect.data.grades, 'grade')} calculated twice in {showCount(effect.data.milliseconds)} ms
            </span>
          )}
        </>
      }
    >
      <Awaited query={effect} waiting={`Calculating the grade books of ${periodName}`}>
        {(data) => <ValueEffect effect={data} />}
      </Awaited>
    </Dialog>
  );
}
