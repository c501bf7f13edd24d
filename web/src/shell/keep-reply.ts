import type { QueryClient, QueryKey } from '@tanstack/react-query';

/** Keeps what a change answered with; what was asked before the change and is still on its way comes too late. */
export function keepReply<Reply>(
  client: QueryClient,
  queryKey: QueryKey,
  reply: Reply | ((kept: Reply | undefined) => Reply | undefined),
): void {
  void client.cancelQueries({ queryKey, exact: true }); // takes effect at once; the promise is only of its settling
  client.setQueryData<Reply>(queryKey, reply);
}
