import { useState } from 'react';
import type { PeriodReply } from '#contract/calendar';
import type { ScaleReply, ScalesReply, TieBody } from '#contract/scales';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';
import { EffectDialog } from './effect/effect-dialog';
import { useChangeScaleFacts } from './queries';
import { TieFields } from './tie-fields';

interface ScaleFactsDialogProps {
  readonly reply: ScalesReply;
  readonly scale: ScaleReply;
  readonly period: PeriodReply;
  readonly onClose: () => void;
}

const shownFields = ['name', 'tie.toId', 'tie.cutOffShift', 'tie.pointsShift'];

/** A scale's name and what it follows. */
export function ScaleFactsDialog({ reply, scale, period, onClose }: ScaleFactsDialogProps) {
  const [name, setName] = useState(scale.name);
  const [tie, setTie] = useState<TieBody | null>(scale.tie && bodyOf(scale.tie));
  const change = useChangeScaleFacts(scale.id, period.id);
  const tellOfChange = useTellOfChange();
  const [isLooking, setLooking] = useState(false);
  const problem = change.error instanceof ProblemError ? change.error : undefined;
  const save = () =>
    change.mutate(
      { revision: scale.revision, name, tie },
      {
        onSuccess: (after) => {
          onClose();
          tellOfChange(`${name} is changed.`, after);
        },
        onError: (error) => {
          setLooking(false);
          if (!(error instanceof ProblemError && error.problem.errors.length > 0)) showProblem(error);
        },
      },
    );
  const isTiedAnew = tie !== null && JSON.stringify(tie) !== JSON.stringify(scale.tie && bodyOf(scale.tie));
  if (isLooking && tie)
    return (
      <EffectDialog
        title={`What following ${reply.scales.find(({ id }) => id === tie.toId)?.name ?? 'it'} would do`}
        change={{ kind: 'tie', scaleId: scale.id, periodId: period.id, tie }}
        periodName={period.name}
        does={`Tie it from ${period.name} on`}
        canDo={!change.isPending}
        onDo={save}
        back="Back"
        onClose={() => setLooking(false)}
      />
    );
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Name and tie of ${scale.name}`}
      footer={
        <>
          <Button
            look="main"
            disabled={change.isPending || name.trim() === ''}
            onClick={isTiedAnew ? () => setLooking(true) : save}
          >
            {isTiedAnew ? 'Preview and save' : 'Save'}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <p role="alert" className="min-w-0 flex-1 text-[13px] text-waratah">
            {problem?.besides(shownFields)}
          </p>
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
