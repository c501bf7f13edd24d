import { useEffect, useEffectEvent, useRef } from 'react';

/** Acts once each time that something that was under way no longer is. */
export function useWhenOver(isUnderWay: boolean, act: () => void): void {
  const was = useRef(false);
  const over = useEffectEvent(act);
  useEffect(() => {
    if (was.current && !isUnderWay) over();
    was.current = isUnderWay;
  }, [isUnderWay]);
}
