import { useState } from 'react';
import type { FindingReply, NoteFindingsRequest } from '#contract/audit';
import { counted } from '#contract/messages';
import { ProblemError } from '../../shell/api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { AreaField, CheckField, SelectField } from '../../ui/field';
import { useAssignees } from '../queries';

interface NoteDialogProps {
  readonly finding: FindingReply;
  /** What the rule found besides, and nobody let stand yet. */
  readonly alike: readonly FindingReply[];
  readonly summary: string;
  readonly periodId: number;
  readonly isPending: boolean;
  readonly problem: Error | null;
  readonly onNote: (
    findings: readonly FindingReply[],
    says: Pick<NoteFindingsRequest, 'comment' | 'assignedTo'>,
  ) => void;
  readonly onClose: () => void;
}

/** Says whose a finding is, or all alike are, and what is being done about it. */
export function NoteDialog(props: NoteDialogProps) {
  const { finding, alike, summary, periodId, isPending, problem, onNote, onClose } = props;
  const { data: assignees = [] } = useAssignees(periodId);
  const [comment, setComment] = useState(finding.note?.comment ?? '');
  const [assignedTo, setAssignedTo] = useState(finding.note?.assignedTo?.id ?? null);
  const [isForAll, setForAll] = useState(false);
  const refused = problem instanceof ProblemError ? problem : undefined;
  const chosen = isForAll ? [finding, ...alike] : [finding];
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Whose ${chosen.length === 1 ? 'is this finding' : `are ${counted(chosen.length, 'finding')}`}?`}
      description={`${finding.subject}: ${finding.sentence} It still counts; what is said here stays beside it from audit to audit.`}
      footer={
        <>
          <Button
            look="main"
            disabled={isPending}
            onClick={() => onNote(chosen, { comment: comment.trim(), assignedTo })}
          >
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="space-y-3">
        <SelectField
          label="Whose"
          value={assignedTo ?? ''}
          onChange={({ target }) => setAssignedTo(target.value === '' ? null : Number(target.value))}
          fault={refused?.fault('assignedTo')}
          className="w-[280px]"
        >
          <option value="">nobody’s yet</option>
          {assignees.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}
            </option>
          ))}
        </SelectField>
        <AreaField
          label="Comment"
          maxLength={1000}
          value={comment}
          onChange={(event) => setComment(event.target.value)}
          fault={refused?.fault('comment')}
        />
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
