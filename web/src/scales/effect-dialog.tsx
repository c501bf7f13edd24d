import type { BandBody, ScaleEffectReply, ScaleReply } from '#contract/scales';
import { ProblemError } from '../shell/api';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { plural, showCount } from '../ui/format';
import { Strong } from '../ui/page';
import { EffectChart } from './effect-chart';
import { EffectMatrix } from './effect-matrix';
import { EffectStudents } from './effect-students';
import { useScaleEffect } from './queries';

interface EffectDialogProps {
  readonly scale: ScaleReply;
  readonly periodId: number;
  readonly periodName: string;
  readonly bands: BandBody[];
  readonly canSave: boolean;
  readonly onSave: () => void;
  readonly onClose: () => void;
}

/** What the draft would do to the period's real grades, before it is saved. */
export function EffectDialog({ scale, periodId, periodName, bands, canSave, onSave, onClose }: EffectDialogProps) {
  const effect = useScaleEffect(scale.id, { periodId, bands });
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`What the draft of ${scale.name} would do`}
      description={effect.data && <EffectSentence effect={effect.data} periodName={periodName} />}
      footer={
        <>
          <Button look="main" disabled={!canSave} onClick={onSave}>
            Save it as version {scale.latestVersion + 1}
          </Button>
          <Button onClick={onClose}>Back to the draft</Button>
          {effect.data && (
            <span className="ml-auto text-[12px] text-quiet">
              {plural(effect.data.grades, 'grade')} looked at in {showCount(effect.data.milliseconds)} ms
            </span>
          )}
        </>
      }
    >
      {effect.isPending && <p className="py-10 text-center text-quiet">Looking at the grades of {periodName} …</p>}
      {effect.error instanceof ProblemError && <p className="text-waratah">{effect.error.problem.detail}</p>}
      {effect.data && (
        <div className="space-y-5">
          <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6">
            <EffectMatrix effect={effect.data} bands={scale.bands} />
            <EffectChart effect={effect.data} bands={scale.bands} />
          </div>
          <EffectStudents effect={effect.data} />
        </div>
      )}
    </Dialog>
  );
}

function EffectSentence({ effect, periodName }: { effect: ScaleEffectReply; periodName: string }) {
  const { grades, changed, passAnew, failAnew, meanBefore, meanAfter, students } = effect;
  if (changed === 0)
    return (
      <>
        No label of the {plural(grades, 'grade')} of {periodName} would change.
      </>
    );
  return (
    <>
      <Strong tone="warns">{showCount(changed)}</Strong> of {plural(grades, 'grade')} of {periodName} would change their
      label, of {plural(students.length, 'student')};{' '}
      {passAnew > 0 && (
        <>
          <Strong>{showCount(passAnew)}</Strong> would pass anew{failAnew > 0 ? ' and ' : ''}
        </>
      )}
      {failAnew > 0 && (
        <>
          <Strong tone="blocks">{showCount(failAnew)}</Strong> would fail anew
        </>
      )}
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
