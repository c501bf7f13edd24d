import { useEffect, useRef, useState } from 'react';
import { useLatest } from '../ui/use-latest';

const minute = 60_000;

/**
 * The server's time, going on from when it was told: once a minute, and each second in the hour before one of some instants.
 * Calls `onReach` when it comes to one of them.
 */
export function useServerNow(told: string, instants: readonly string[] = [], onReach?: () => void): string {
  const [passed, setPassed] = useState({ told, milliseconds: 0 });
  const arrived = useRef<{ readonly told: string; readonly at: number }>(undefined);
  const latest = useLatest(onReach);
  if (passed.told !== told) setPassed({ told, milliseconds: 0 });
  const now = Date.parse(told) + (passed.told === told ? passed.milliseconds : 0);
  const next = Math.min(Infinity, ...instants.map((each) => Date.parse(each)).filter((each) => each > now));
  const isNear = next - now <= 60 * minute;
  useEffect(() => {
    if (arrived.current?.told !== told) arrived.current = { told, at: Date.now() };
    const { at } = arrived.current;
    const tick = () => {
      const milliseconds = Date.now() - at;
      setPassed({ told, milliseconds });
      if (Date.parse(told) + milliseconds >= next) latest.current?.();
    };
    const timer = setInterval(tick, isNear ? 1000 : minute);
    return () => clearInterval(timer);
  }, [told, isNear, next, latest]);
  return new Date(now).toISOString();
}
