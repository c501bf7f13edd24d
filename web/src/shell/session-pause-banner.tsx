import { Clock } from 'lucide-react';
import { useEffect, useState } from 'react';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { api, ProblemError } from './api';
import { followOtherTabs, isUnheard, leftOfSession, noteUse, useSessionPause } from './session-pause';
import { noteSession } from './session-state';

const second = 1000;
/** How long before its end a session warns. */
const warned = 120 * second;

/**
 * Keeps the session open while somebody types or points, warns two minutes before it ends unused, and says when it has. Any
 * key and any click extends it, and does what it does besides.
 */
export function SessionPauseBanner() {
  const pause = useSessionPause((state) => state.pause);
  const heardAt = useSessionPause((state) => state.heardAt);
  const [now, setNow] = useState(Date.now);
  const left = leftOfSession({ pause, heardAt }, now);
  const isWarning = left !== null && left <= warned;
  useEffect(followOtherTabs, []);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), second);
    return () => clearInterval(timer);
  }, []);
  useEffect(() => {
    const onUse = () => {
      noteUse();
      const isNear = (leftOfSession(useSessionPause.getState(), Date.now()) ?? Infinity) <= warned;
      if (isNear || isUnheard()) tellServer();
    };
    for (const kind of used) window.addEventListener(kind, onUse, true);
    return () => {
      for (const kind of used) window.removeEventListener(kind, onUse, true);
    };
  }, []);
  const isOver = left !== null && left <= 0;
  useEffect(() => {
    if (isOver) noteSession('ended');
  }, [isOver]);
  if (!isWarning || isOver) return null;
  return (
    <div className="flex items-center gap-3 border-b border-wattle-fill bg-wattle-soft px-6 py-1.5">
      <Clock size={15} aria-hidden />
      <p role="alert">
        Nothing was typed here for a while, so your session is about to end. Press any key to stay signed in.
      </p>
      <span className="figures" role="timer">
        {counted(Math.ceil(left / second), 'second')} left
      </span>
      <Button className="ml-auto">Stay signed in</Button>
    </div>
  );
}

const used = ['keydown', 'pointerdown'] as const;
let isTelling = false;

/** Tells the server that somebody is there; one that cannot be reached is told the next time. */
function tellServer(): void {
  if (isTelling) return;
  isTelling = true;
  api
    .get('/session')
    .catch((problem: unknown) => {
      if (problem instanceof ProblemError && problem.problem.status === 401) noteSession('ended');
    })
    .finally(() => (isTelling = false));
}
