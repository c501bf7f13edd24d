import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from '../ui/button';
import { ProblemError } from './api';

interface AwaitedProps<Data> {
  readonly query: Pick<UseQueryResult<Data>, 'data' | 'error' | 'refetch'>;
  /** What is done meanwhile, in words. */
  readonly waiting: string;
  readonly children: (data: Data) => ReactNode;
}

/** What the server is asked for: words until it is there, and why it is not, with a way to ask again. */
export function Awaited<Data>({ query: { data, error, refetch }, waiting, children }: AwaitedProps<Data>) {
  if (data !== undefined) return children(data);
  if (!error) return <p className="py-6 text-center text-quiet">{waiting} …</p>;
  return (
    <div role="alert" className="space-y-2 py-4">
      <p className="text-waratah">
        {error instanceof ProblemError ? `${error.problem.detail} ${error.besides([])}` : error.message}
      </p>
      <Button onClick={() => void refetch()}>Try again</Button>
    </div>
  );
}
