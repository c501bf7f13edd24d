import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useTimeLeft, type Watched } from './use-time-left';

interface RunningLinkProps {
  readonly to: string;
  readonly watched: Watched;
  /** What is being done, and how far it is. */
  readonly children: ReactNode;
}

/** Work under way in the top bar: what, how far, and the time left; it leads to its own place. */
export function RunningLink({ to, watched, children }: RunningLinkProps) {
  const left = useTimeLeft(watched);
  return (
    <span role="status">
      <Link to={to} className="text-[12px] whitespace-nowrap text-quiet hover:underline">
        {children}
        {left !== null && <>, {left} left</>}
      </Link>
    </span>
  );
}
