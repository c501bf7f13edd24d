import { withViewChange, type OwnView, type OwnViewChange } from '#core/people';
import { useReader } from '../ui/reader';
import { showOwnView, useOwnView } from '../ui/own-view';
import { api, ProblemError } from './api';
import { usePreferences } from './preferences';
import { useReachability } from './reachability';
import { showProblem } from './show-problem';

/** A column that is dragged wider changes with every move of the mouse. */
const quietMilliseconds = 400;

/** What is on its way to the server, and what was changed since. */
let sending: OwnViewChange = {};
let waiting: OwnViewChange = {};
let timer: ReturnType<typeof setTimeout> | undefined;

/** Shows what is a person's own view, and keeps on the server what they change of it. */
export function followOwnView(view: OwnView): void {
  // What was changed a moment ago is not in it yet.
  showOwnView(withViewChange(withViewChange(view, sending), waiting), (change) => {
    waiting = bothOf(waiting, change);
    sendSoon();
  });
  if (!isNothing(waiting)) sendSoon();
}

/** Shows what somebody else's view is; what is changed of it now is kept nowhere. */
export function borrowOwnView(view: OwnView): void {
  forgetWaiting();
  showOwnView(view);
}

/** What is not on the server yet goes there when the tab is left, and when a server that was away is there again. */
export function keepViewWhenLeft(): void {
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') sendWaiting();
  });
  useReachability.subscribe(({ isReachable }) => {
    if (isReachable && !isNothing(waiting)) sendSoon();
  });
}

/** The theme that was last chosen here also stands before anybody has signed in. */
export function rememberTheme(): void {
  useOwnView.subscribe(({ theme }) => {
    if (useReader.getState().id !== 0) usePreferences.setState({ theme });
  });
}

function sendSoon(): void {
  clearTimeout(timer);
  timer = setTimeout(sendWaiting, quietMilliseconds);
}

/** One change after the other, so that the last one made is the last one kept. */
function sendWaiting(): void {
  if (isNothing(waiting) || !isNothing(sending)) return;
  const change = waiting;
  sending = change;
  waiting = {};
  api.putThoughLeft<OwnView>('/session/view', change).then(
    () => {
      if (sending !== change) return;
      sending = {};
      if (!isNothing(waiting)) sendSoon();
    },
    (error: unknown) => {
      if (sending !== change) return;
      sending = {};
      if (isRefused(error)) showProblem(error);
      else waiting = bothOf(change, waiting);
    },
  );
}

/** A server that is away, or wants one to sign in again, is told later. */
function isRefused(error: unknown): boolean {
  return !(error instanceof ProblemError) || ![401, 503].includes(error.problem.status);
}

function bothOf(before: OwnViewChange, after: OwnViewChange): OwnViewChange {
  const columns = { ...before.columns, ...after.columns };
  return { ...before, ...after, ...(Object.keys(columns).length > 0 && { columns }) };
}

function isNothing(change: OwnViewChange): boolean {
  return Object.keys(change).length === 0;
}

function forgetWaiting(): void {
  clearTimeout(timer);
  waiting = {};
  sending = {};
}
