import { useLayoutEffect, useRef, type RefObject } from 'react';

/** A place that always holds what the last drawing made, for functions that stay the same while what they do changes. */
export function useLatest<Value>(value: Value): RefObject<Value> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}
