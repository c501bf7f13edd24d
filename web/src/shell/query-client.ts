import { QueryClient } from '@tanstack/react-query';
import { ProblemError } from './api';

/**
 * What was asked of the server. Without a connection a save fails at once and says so: nothing is held back to be sent later,
 * when nobody looks and much may have changed.
 */
export function createQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        retry: (count, error) => !(error instanceof ProblemError) && count < 2,
        networkMode: 'always',
      },
      mutations: { networkMode: 'always' },
    },
  });
}
