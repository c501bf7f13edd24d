import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { canCarryOut, canDiscard, canResume, canUndo, isUnderWay, linesToWrite } from '#core/runs';
import type { RunReply } from '#contract/runs';
import { counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { HistoryButton } from '../changes/history-button';
import { Button, Key } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { showCount } from '../ui/format';
import { useKeys } from '../ui/use-keys';
import { LettersDialog } from './letters-dialog';
import { usePlanRun, useRunActions } from './run-queries';

/** What can be done with the run as it stands; the main thing first. */
export function RunActions({ run }: { run: RunReply }) {
  const { path } = useScope();
  const navigate = useNavigate();
  const { carryOut, stop, resume, undo, discard } = useRunActions(run.id);
  const again = usePlanRun();
  const [isUndoing, setUndoing] = useState(false);
  const [isWriting, setWriting] = useState(false);
  const { counts } = run;
  const writes = linesToWrite(counts);
  const mayCarryOut = canCarryOut(run) && writes > 0 && !carryOut.isPending;
  const carry = () => {
    if (mayCarryOut) carryOut.mutate();
  };
  useKeys([{ key: 'Ctrl+Enter', says: 'carry the plan out', act: carry }]);
  const planAgain = () => {
    const { platformId, periodId, mode, carriesWork, carriesTotals } = run;
    again.mutate(
      { platformId, periodId, mode, carriesWork, carriesTotals },
      { onSuccess: ({ id }) => void navigate(path(`runs/${id}`)) },
    );
  };
  return (
    <>
      {canCarryOut(run) && writes > 0 && (
        <Button look="main" disabled={!mayCarryOut} onClick={carry}>
          Carry out {showCount(writes)} <Key>Ctrl ↵</Key>
        </Button>
      )}
      {isUnderWay(run) && (
        <>
          <Button writes disabled={stop.isPending} onClick={() => stop.mutate()}>
            Stop
          </Button>
          <progress className="h-1.5 w-56" aria-label="Classes" value={run.done} max={Math.max(1, run.total)} />
        </>
      )}
      {canResume(run) && (
        <Button look="main" disabled={resume.isPending} onClick={() => resume.mutate()}>
          Go on
        </Button>
      )}
      {!isUnderWay(run) && (
        <Button writes disabled={again.isPending} onClick={planAgain}>
          Plan it again
        </Button>
      )}
      {canUndo(run) && counts.results.written > 0 && (
        <Button writes onClick={() => setUndoing(true)}>
          Undo the run…
        </Button>
      )}
      {!isUnderWay(run) && counts.outcomes.refuse + counts.outcomes.skip > 0 && (
        <Button writes onClick={() => setWriting(true)}>
          Message the teachers…
        </Button>
      )}
      <HistoryButton thing={`run ${run.id}`} called="this run" />
      {isWriting && <LettersDialog run={run} onClose={() => setWriting(false)} />}
      {canDiscard(run) && (
        <Button
          writes
          look="quiet"
          onClick={() =>
            discard.mutate(undefined, {
              onSuccess: () => {
                toast.success('The plan is discarded; nothing was written.');
                void navigate(path('runs'));
              },
            })
          }
        >
          Discard
        </Button>
      )}
      <Dialog
        isOpen={isUndoing}
        onOpenChange={setUndoing}
        title="Undo the run?"
        description={`${counted(counts.results.written, 'row')} that this run wrote ${counts.results.written === 1 ? 'becomes' : 'become'} what stood there before.`}
        footer={
          <>
            <Button look="danger" onClick={() => undo.mutate(undefined, { onSuccess: () => setUndoing(false) })}>
              Undo {counted(counts.results.written, 'row')}
            </Button>
            <Button onClick={() => setUndoing(false)}>Cancel</Button>
          </>
        }
      >
        <p className="text-[13px] text-quiet">
          What was changed since then stays as it is, and the ledger says which rows those are.
        </p>
      </Dialog>
    </>
  );
}
