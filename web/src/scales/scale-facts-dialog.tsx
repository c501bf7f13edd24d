import { useState } from 'react';
import { toast } from 'sonner';
import type { ScaleReply, ScalesReply, TieBody } from '#contract/scales';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';
import { useChangeScaleFacts } from './queries';
import { TieFields } from './tie-fields';

interface ScaleFactsDialogProps {
  readonly reply: ScalesReply;
  readonly scale: ScaleReply;
  readonly periodId: number;
  readonly onClose: () => void;
}

/** A scale's name and what it follows. */
export function ScaleFactsDialog({ reply, scale, periodId, onClose }: ScaleFactsDialogProps) {
  const [name, setName] = useState(scale.name);
  const [tie, setTie] = useState<TieBody | null>(scale.tie && bodyOf(scale.tie));
  const change = useChangeScaleFacts(scale.id, periodId);
  const problem = change.error instanceof ProblemError ? change.error : undefined;
  const save = () =>
    change.mutate(
      { name, tie },
      {
        onSuccess: () => {
          onClose();
          toast.success(`${name} is changed.`);
        },
        onError: (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
      },
    );
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Name and tie of ${scale.name}`}
      footer={
        <>
          <Button look="main" disabled={change.isPending || name.trim() === ''} onClick={save}>
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="space-y-3">
        <TextField
          label="Name"
          value={name}
          maxLength={60}
          fault={problem?.fault('name')}
          onChange={(event) => setName(event.target.value)}
        />
        <TieFields
          scales={reply.scales.filter(({ id, kind }) => id !== scale.id && kind === scale.kind)}
          tie={tie}
          fault={(field) => problem?.fault(field)}
          onChange={setTie}
        />
      </div>
    </Dialog>
  );
}

function bodyOf({ toId, cutOffShift, pointsShift }: TieBody): TieBody {
  return { toId, cutOffShift, pointsShift };
}
