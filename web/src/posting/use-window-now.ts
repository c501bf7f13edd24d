import { useQueryClient } from '@tanstack/react-query';
import type { WindowReply } from '#contract/calendar';
import { useRefreshCounts } from '../shell/scope';
import { useServerNow } from '../shell/use-server-now';

/** The server's time, going on from when it was told; at the minute when a window opens or closes, what rests on it is asked for again. */
export function useWindowNow(
  told: string | undefined,
  windows: readonly (WindowReply | null)[],
  queryKeys: readonly string[],
): string {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const instants = windows.flatMap((window) =>
    window ? [window.opensAt, window.closesAt, ...(window.graceUntil ? [window.graceUntil] : [])] : [],
  );
  return useServerNow(told ?? new Date(0).toISOString(), instants, () => {
    for (const key of queryKeys) void client.invalidateQueries({ queryKey: [key] });
    refreshCounts();
  });
}
