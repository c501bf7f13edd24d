import { useState } from 'react';
import type { Day } from '#core/calendar';
import type { FindingReply, WaiveRequest } from '#contract/audit';
import { counted } from '#contract/messages';
import { ProblemError } from '../../shell/api';
import { Button } from '../../ui/button';
import { OptionalDayField } from '../../ui/day/day-field';
import { Dialog } from '../../ui/dialog';
import { AreaField, CheckField } from '../../ui/field';

/** Shorter ones say nothing to whoever reads them later. */
const shortestReason = 3;

interface WaiveDialogProps {
  readonly finding: FindingReply;
  /** What the rule found besides, and nobody let stand yet. */
  readonly alike: readonly FindingReply[];
  readonly summary: string;
  readonly today: Day;
  readonly isPending: boolean;
  readonly problem: Error | null;
  readonly onWaive: (findings: readonly FindingReply[], decision: Pick<WaiveRequest, 'reason' | 'until'>) => void;
  readonly onClose: () => void;
}

/** Lets a finding stand, or all alike, for a reason and perhaps until a day. */
export function WaiveDialog(props: WaiveDialogProps) {
  const { finding, alike, summary, today, isPending, problem, onWaive, onClose } = props;
  const [reason, setReason] = useState('');
  const [until, setUntil] = useState<Day | null>(null);
  const [isForAll, setForAll] = useState(false);
  const chosen = isForAll ? [finding, ...alike] : [finding];
  const refused = problem instanceof ProblemError ? problem : undefined;
  const isReason = reason.trim().length >= shortestReason;
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Let ${isForAll ? counted(chosen.length, 'finding') : 'this finding'} stand?`}
      description={`${finding.subject}: ${finding.sentence} Your name, the reason and the day stand beside it. It counts again as soon as it says something else.`}
      footer={
        <>
          <Button
            look="main"
            disabled={isPending || !isReason}
            onClick={() => onWaive(chosen, { reason: reason.trim(), until })}
          >
            Waive {isForAll ? chosen.length : ''}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="space-y-3">
        <AreaField
          label="Reason"
          maxLength={500}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          fault={refused?.fault('reason')}
        />
        <div>
          <p aria-hidden className="mb-1 text-[13px] font-semibold">
            Until (empty: for good)
          </p>
          <div className="w-[180px] rounded-md border border-control bg-surface">
            <OptionalDayField
              label="Until"
              day={until}
              near={today}
              onChange={setUntil}
              refuse={(day) => (day < today ? 'today or a day to come' : undefined)}
            />
          </div>
          {refused?.fault('until') && <p className="text-[13px] text-waratah">{refused.fault('until')}</p>}
        </div>
        {alike.length > 0 && (
          <CheckField
            label={`the ${counted(alike.length, 'other finding')} of “${summary}” too`}
            checked={isForAll}
            onChange={(event) => setForAll(event.target.checked)}
          />
        )}
      </div>
    </Dialog>
  );
}
