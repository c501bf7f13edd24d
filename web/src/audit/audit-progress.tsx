import type { AuditTaskReply } from '#contract/audit';
import { Button } from '../ui/button';
import { showInstant } from '../ui/format';
import { Note } from '../ui/panel';

interface AuditProgressProps {
  readonly task: AuditTaskReply;
  readonly mayStop: boolean;
  readonly onStop: () => void;
}

/** How far an audit is, with a way to stop it; or that it came to nothing, and why. */
export function AuditProgress({ task, mayStop, onStop }: AuditProgressProps) {
  const { state, startedBy, startedAt, rulesDone, ruleCount, problem } = task;
  const begun = `${startedBy}, ${showInstant(startedAt)}`;
  if (state === 'stopped')
    return (
      <p className="px-1 text-[13px] text-quiet">
        The last audit ({begun}) was stopped; below is what was found before.
      </p>
    );
  if (state === 'failed')
    return (
      <Note tone="blocks" title="The last audit came to nothing">
        <p>
          {problem} ({begun}) What was found before stays as it was.
        </p>
      </Note>
    );
  return (
    <section
      aria-label="Auditing"
      className="flex items-center gap-3 rounded-md border border-hairline bg-surface px-4 py-2 text-[13px]"
    >
      <span role="status" className="shrink-0">
        {rulesDone === 0 ? (
          'Reading the grades and their set-up'
        ) : (
          <>
            <b className="figures">{rulesDone}</b> of <b className="figures">{ruleCount}</b> rules have looked
          </>
        )}
      </span>
      <progress aria-label="Rules that have looked" value={rulesDone} max={ruleCount} className="h-2 min-w-0 flex-1" />
      <span className="shrink-0 text-quiet">begun by {begun}</span>
      {mayStop && <Button onClick={onStop}>Stop</Button>}
    </section>
  );
}
