import type { ScaleEffectReply } from '#contract/scales';
import { counted } from '#contract/messages';
import { Awaited } from '../../shell/awaited';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { showCount } from '../../ui/format';
import { Strong } from '../../ui/page';
import { AnewWords } from './anew-words';
import { EffectPicture } from './effect-picture';
import { EffectStudents } from './effect-students';
import { useKeys } from '../../ui/use-keys';
import { useScaleEffect, type PreviewedChange } from '../queries';

interface EffectDialogProps {
  readonly title: string;
  readonly change: PreviewedChange;
  readonly periodName: string;
  /** What its button says that makes the change. */
  readonly does: string;
  readonly canDo: boolean;
  readonly onDo: () => void;
  readonly back: string;
  readonly onClose: () => void;
}

/** What a change of scales would do to the period's real grades, before it is made. */
export function EffectDialog({ title, change, periodName, does, canDo, onDo, back, onClose }: EffectDialogProps) {
  const effect = useScaleEffect(change);
  const isReady = canDo && effect.data !== undefined;
  useKeys([{ key: 'Ctrl+s', says: does, inFields: true, act: () => isReady && onDo() }]);
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={title}
      description={effect.data && <EffectSentence effect={effect.data} periodName={periodName} />}
      footer={
        <>
          <Button look="main" disabled={!isReady} onClick={onDo}>
            {does}
          </Button>
          <Button onClick={onClose}>{back}</Button>
          {effect.data && (
            <span className="ml-auto text-[12px] text-quiet">
              {counted(effect.data.grades, 'grade')} looked at in {showCount(effect.data.milliseconds)} ms
            </span>
          )}
        </>
      }
    >
      <p className="mb-3 text-[13px] text-quiet">
        It applies from {periodName} on. Earlier periods, and grades already posted, keep the scale they have.
      </p>
      <Awaited query={effect} waiting={`Looking at the grades of ${periodName}`}>
        {(data) => (
          <div className="space-y-5">
            <EffectPicture effect={data} />
            <EffectStudents effect={data} />
          </div>
        )}
      </Awaited>
    </Dialog>
  );
}

function EffectSentence({ effect, periodName }: { effect: ScaleEffectReply; periodName: string }) {
  const { grades, changed, passAnew, failAnew, meanBefore, meanAfter, students } = effect;
  if (grades === 0) return <>No grade of {periodName} is concerned.</>;
  if (changed === 0)
    return (
      <>
        No label of the {counted(grades, 'grade')} of {periodName} would change.
      </>
    );
  return (
    <>
      <Strong tone="warns">{showCount(changed)}</Strong> of {counted(grades, 'grade')} of {periodName} would change
      their label, of {counted(students.length, 'student')}; <AnewWords passAnew={passAnew} failAnew={failAnew} />
      {passAnew + failAnew === 0 && 'nobody would pass or fail anew'}
      {meanBefore && meanAfter && (
        <>
          {' '}
          and the mean GPA of the period {meanBefore === meanAfter ? 'would stay' : 'would go from'}{' '}
          <Strong>{meanBefore}</Strong>
          {meanBefore !== meanAfter && (
            <>
              {' '}
              to <Strong>{meanAfter}</Strong>
            </>
          )}
        </>
      )}
      .
    </>
  );
}
