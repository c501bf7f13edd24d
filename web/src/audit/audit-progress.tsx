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
  const { state, startedBy, startedAt, sectionsDone, sectionCount, problem } = task;
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
        {sectionCount === 0 ? (
          'Reading the set-up'
        ) : (
          <>
            All rules have looked at <b className="figures">{sectionsDone}</b> of{' '}
            <b className="figures">{sectionCount}</b> sections
          </>
        )}
      </span>
      <progress
        aria-label="Sections that were looked at"
        value={sectionsDone}
        max={Math.max(1, sectionCount)}
        className="h-2 min-w-0 flex-1"
      />
      <span className="shrink-0 text-quiet">begun by {begun}</span>
      {mayStop && <Button onClick={onStop}>Stop</Button>}
    </section>
  );
}
