import { useQuery } from '@tanstack/react-query';
import type { RunSummaryReply } from '#contract/runs';

/** Work that was watched for less than this says nothing of its pace yet. */
const leastSeconds = 3;

export interface Watched {
  /** Another name for other work, or another stage of it; null for none. */
  readonly work: string | null;
  readonly done: number;
  readonly total: number;
  /** When this was told, in milliseconds. */
  readonly at: number;
}

/**
 * How long work of so many steps is likely still to take, by its pace since it was first seen; null while nothing can be
 * said.
 */
export function useTimeLeft({ work, done, total, at }: Watched): string | null {
  const { data: first } = useQuery({
    queryKey: ['first-seen', work],
    enabled: work !== null,
    staleTime: Infinity,
    queryFn: () => ({ done, at }),
  });
  return work === null || !first ? null : timeLeft((at - first.at) / 1000, done - first.done, total - done);
}

/** A run's stage as something to be watched. */
export function workOf(run: RunSummaryReply | undefined): Omit<Watched, 'at'> {
  return run ? { work: `${run.id} ${run.stage}`, done: run.done, total: run.total } : { work: null, done: 0, total: 0 };
}

/** In words, from what was done in so many seconds and what remains; null while it is too early to say. */
export function timeLeft(seconds: number, done: number, remaining: number): string | null {
  if (seconds < leastSeconds || done <= 0) return null;
  const left = (seconds / done) * remaining;
  if (left < 90) return `about ${Math.max(1, Math.round(left))} s`;
  return `about ${Math.round(left / 60)} min`;
}
