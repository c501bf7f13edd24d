import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { useRefreshCounts, useScope } from '../shell/scope';
import { useRuns } from './run-queries';
import { stageWords } from './run-words';
import { useTimeLeft, workOf } from './use-time-left';

/** The run under way in the top bar: stage, count and time left. What hangs on it is asked for again when it is over. */
export function RunningRun() {
  const { schoolId, path } = useScope();
  const { data, dataUpdatedAt: at } = useRuns(schoolId);
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const run = data?.runs.find(({ state }) => state === 'working');
  const left = useTimeLeft({ ...workOf(run), at });
  const wasRunning = useRef(false);
  const isRunning = run !== undefined;
  useEffect(() => {
    if (wasRunning.current && !isRunning) {
      for (const key of ['run', 'run-rows', 'sheet', 'book', 'last-run', 'recalculation'])
        void client.invalidateQueries({ queryKey: [key] });
      refreshCounts();
    }
    wasRunning.current = isRunning;
  }, [client, isRunning, refreshCounts]);
  if (!run) return null;
  return (
    <span role="status">
      <Link to={path(`runs/${run.id}`)} className="text-[12px] whitespace-nowrap text-quiet hover:underline">
        {stageWords[run.stage]} {run.platform} <b className="figures">{run.done}</b> of {run.total}
        {left !== null && <>, {left} left</>}
      </Link>
    </span>
  );
}
