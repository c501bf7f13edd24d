import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Asks for the board again whenever the server says that something on it changed, and when the connection comes back. */
export function useBoardEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return undefined;
    const events = new EventSource('/api/board/events');
    const askAgain = () => void client.invalidateQueries({ queryKey: ['board'] });
    let isFirst = true;
    events.addEventListener('changed', askAgain);
    events.addEventListener('open', () => {
      if (!isFirst) askAgain();
      isFirst = false;
    });
    return () => events.close();
  }, [client]);
}
