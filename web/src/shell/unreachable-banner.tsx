import { useQueryClient } from '@tanstack/react-query';
import { WifiOff } from 'lucide-react';
import { useEffect } from 'react';
import { api } from './api';
import { useReachability } from './reachability';

/** How often a server that cannot be reached is asked again. */
const tryMilliseconds = 3_000;

/** Says while the server cannot be reached that nothing is sent, asks again by itself, and reads everything anew once it is back. */
export function UnreachableBanner() {
  const client = useQueryClient();
  const isReachable = useReachability((state) => state.isReachable);
  useEffect(() => {
    if (isReachable) return;
    const timer = setInterval(() => {
      api.get('/session').then(
        () => void client.invalidateQueries(),
        () => undefined,
      );
    }, tryMilliseconds);
    return () => clearInterval(timer);
  }, [isReachable, client]);
  if (isReachable) return null;
  return (
    <p role="alert" className="flex items-center gap-2 border-b border-wattle-fill bg-wattle-soft px-6 py-2">
      <WifiOff size={15} aria-hidden />
      The server cannot be reached. What you type is kept in this browser; nothing is sent until you save it again.
    </p>
  );
}
