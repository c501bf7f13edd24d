import type { FindingReply } from '#contract/audit';
import { Button } from '../ui/button';
import { showDay, showInstant } from '../ui/format';

interface WaiverNoteProps {
  readonly finding: FindingReply;
  readonly mayWaive: boolean;
  readonly onEnd: () => void;
}

/** Who let a finding stand, why, and whether that still holds. */
export function WaiverNote({ finding: { waiver }, mayWaive, onEnd }: WaiverNoteProps) {
  if (!waiver) return null;
  const { by, at, reason, until, state } = waiver;
  return (
    <div
      className={`mt-3 rounded-md border px-3 py-2 text-[13px] ${state === 'holds' ? 'border-eucalypt bg-eucalypt-soft' : 'border-wattle-fill bg-wattle-soft'}`}
    >
      <p className="font-semibold">
        {state === 'holds' && `Waived${until ? ` until ${showDay(until)}` : ''}`}
        {state === 'over' && `The waiver was over on ${showDay(until!)}`}
        {state === 'changed' && 'The waiver ended: the finding says something else now'}
      </p>
      <p className="mt-0.5">“{reason}”</p>
      <p className="mt-0.5 text-quiet">
        {by}, {showInstant(at)}
      </p>
      {mayWaive && (
        <Button className="mt-2" onClick={onEnd}>
          End the waiver
        </Button>
      )}
    </div>
  );
}
