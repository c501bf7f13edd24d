import { useQueryClient } from '@tanstack/react-query';
import { useRefreshCounts, useScope } from '../shell/scope';
import { useWhenOver } from '../ui/use-when-over';
import { RunningLink } from './running-link';
import { useRuns } from './run-queries';
import { stageWords } from './run-words';
import { workOf } from './use-time-left';

/** The run under way in the top bar: stage and count. What hangs on it is asked for again when it is over. */
export function RunningRun() {
  const { schoolId, path } = useScope();
  const { data, dataUpdatedAt: at } = useRuns(schoolId);
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const run = data?.runs.find(({ state }) => state === 'working');
  useWhenOver(run !== undefined, () => {
    for (const key of ['run', 'run-rows', 'sheet', 'book', 'last-run', 'recalculation'])
      void client.invalidateQueries({ queryKey: [key] });
    refreshCounts();
  });
  if (!run) return null;
  return (
    <RunningLink to={path(`runs/${run.id}`)} watched={{ ...workOf(run), at }}>
      {stageWords[run.stage]} {run.platform} <b className="figures">{run.done}</b> of {run.total}
    </RunningLink>
  );
}
