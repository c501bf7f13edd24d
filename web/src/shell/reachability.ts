import { create } from 'zustand';

/** Whether the server answered when it was last asked. */
export const useReachability = create<{ readonly isReachable: boolean }>(() => ({ isReachable: true }));

export function noteReachability(isReachable: boolean): void {
  if (useReachability.getState().isReachable !== isReachable) useReachability.setState({ isReachable });
}
