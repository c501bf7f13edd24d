import { agreeing, counted } from '#contract/messages';
import { useQueryClient } from '@tanstack/react-query';
import { Button } from '../ui/button';
import { showCount } from '../ui/format';
import { Note } from '../ui/panel';
import { useWhenOver } from '../ui/use-when-over';
import { useRecalculation, useSteerRecalculation } from './queries';

/** How far the calculating of stale grade books is, with a way to stop it; nothing while there is none to do. */
export function RecalculationNote() {
  const { data: progress } = useRecalculation();
  const steer = useSteerRecalculation();
  if (!progress) return null;
  const { remaining, total, isRunning, failed } = progress;
  if (remaining === 0)
    return failed.length === 0 ? null : (
      <Note tone="blocks" title={`${counted(failed.length, 'grade book')} could not be calculated`}>
        {failed.map(({ sectionId, section, problem }) => (
          <p key={sectionId}>
            {section}: {problem}. It is tried again when something of it changes.
          </p>
        ))}
      </Note>
    );
  const done = Math.max(0, total - remaining);
  return (
    <section
      aria-label="Calculating"
      className="flex items-center gap-3 rounded-md border border-hairline bg-surface px-4 py-2 text-[13px]"
    >
      {isRunning ? (
        <>
          <span className="shrink-0">
            Calculating grade books: <b className="figures">{showCount(done)}</b> of{' '}
            <b className="figures">{showCount(total)}</b>
          </span>
          <progress value={done} max={total} className="h-2 min-w-0 flex-1" />
          <Button writes onClick={() => steer.mutate(false)}>
            Stop
          </Button>
        </>
      ) : (
        <>
          <span className="flex-1">
            <b>{counted(remaining, 'grade book')}</b> {agreeing(remaining, 'waits')} to be calculated again; each is
            when it is opened.
          </span>
          <Button writes onClick={() => steer.mutate(true)}>
            Calculate them now
          </Button>
        </>
      )}
    </section>
  );
}

/** The same in the top bar, in a few words. What hangs on calculated grades is asked for again when it is done. */
export function RunningCalculation() {
  const { data: progress } = useRecalculation();
  const client = useQueryClient();
  const isRunning = progress?.isRunning ?? false;
  useWhenOver(isRunning, () => {
    for (const key of ['calculation', 'sheet', 'sheets', 'book', 'scales'])
      void client.invalidateQueries({ queryKey: [key] });
  });
  if (!progress || !isRunning) return null;
  const { remaining, total } = progress;
  return (
    <span role="status" className="text-[12px] whitespace-nowrap text-quiet">
      calculating <b className="figures">{showCount(remaining)}</b> of {showCount(total)} books
    </span>
  );
}
