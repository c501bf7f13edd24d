import { useState } from 'react';
import type { FindingReply, MendReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { ReceiptRows } from '../../posting/receipt-rows';
import { Awaited } from '../../shell/awaited';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { CheckField } from '../../ui/field';
import { showName } from '../../ui/format';
import { useMend, useMendPreview } from '../queries';

interface MendDialogProps {
  readonly periodId: number;
  readonly finding: FindingReply;
  /** What the rule found besides, and nobody let stand. */
  readonly alike: readonly FindingReply[];
  readonly summary: string;
  /** What it does, as a button says it. */
  readonly fix: string;
  readonly onMended: (reply: MendReply) => void;
  readonly onClose: () => void;
}

/** What setting a finding right, or all alike, would change, grade by grade, before it is done. */
export function MendDialog({ finding, alike, summary, fix, periodId, onMended, onClose }: MendDialogProps) {
  const [isForAll, setForAll] = useState(false);
  const chosen = isForAll ? [finding, ...alike] : [finding];
  const [takesBackSignOffs, setTakingBack] = useState(false);
  const preview = useMendPreview(periodId, chosen, takesBackSignOffs);
  const mend = useMend(periodId);
  const carryOut = () =>
    preview.data &&
    mend.mutate(
      { findings: chosen, takesBackSignOffs, fingerprint: preview.data.fingerprint },
      { onSuccess: onMended, onError: showProblem },
    );
  const count = preview.data?.changes.length ?? 0;
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`${fix}?`}
      description={`${summary}. Nothing else of the grades changes; receipts go to the teachers, and one step takes it back.`}
      footer={
        <>
          <Button look="main" disabled={count === 0 || mend.isPending || preview.isFetching} onClick={carryOut}>
            {fix} for {counted(count, 'grade')}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      {alike.length > 0 && (
        <CheckField
          className="mb-3"
          label={`the ${counted(alike.length, 'other finding')} of “${summary}” too`}
          checked={isForAll}
          onChange={(event) => setForAll(event.target.checked)}
        />
      )}
      {(preview.data?.signedOff ?? 0) > 0 && (
        <CheckField
          className="mb-3"
          label={`also on ${counted(preview.data!.signedOff, 'signed-off sheet')}: the sign-off is taken back`}
          checked={takesBackSignOffs}
          onChange={(event) => setTakingBack(event.target.checked)}
        />
      )}
      <div className="max-h-[44vh] overflow-auto text-[13px]">
        <Awaited query={preview} waiting="Looking at the grades">
          {({ changes, skipped }) => (
            <>
              <ReceiptRows changes={changes} />
              {skipped.length > 0 && (
                <div className="mt-3">
                  <h3 className="font-semibold">{counted(skipped.length, 'grade')} skipped</h3>
                  <ul>
                    {skipped.map(({ student, section, why }) => (
                      <li key={`${student}/${section}`} className="border-t border-hairline py-1">
                        {showName(student)}, {section}: <span className="text-quiet">{why}</span>
                      </li>
                    ))}
                  </ul>
                </div>
              )}
            </>
          )}
        </Awaited>
      </div>
    </Dialog>
  );
}
