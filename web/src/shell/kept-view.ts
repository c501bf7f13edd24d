import { withViewChange, type OwnView, type OwnViewChange } from '#core/people';
import { useReader } from '../ui/reader';
import { showOwnView, useOwnView } from '../ui/own-view';
import { api } from './api';
import { usePreferences } from './preferences';
import { showProblem } from './show-problem';

/** A column that is dragged wider changes with every move of the mouse. */
const quietMilliseconds = 400;

let waiting: OwnViewChange = {};
let timer: ReturnType<typeof setTimeout> | undefined;

/** Shows what is a person's own view, and keeps on the server what they change of it. */
export function followOwnView(view: OwnView): void {
  // What was changed a moment ago is not in it yet.
  showOwnView(withViewChange(view, waiting), (change) => {
    const columns = { ...waiting.columns, ...change.columns };
    waiting = { ...waiting, ...change, ...(Object.keys(columns).length > 0 && { columns }) };
    clearTimeout(timer);
    timer = setTimeout(sendWaiting, quietMilliseconds);
  });
}

/** Shows what somebody else's view is; what is changed of it now is kept nowhere. */
export function borrowOwnView(view: OwnView): void {
  forgetWaiting();
  showOwnView(view);
}

/** What is not on the server yet goes there when the tab is left. */
export function keepViewWhenLeft(): void {
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') sendWaiting();
  });
}

/** The theme that was last chosen here also stands before anybody has signed in. */
export function rememberTheme(): void {
  useOwnView.subscribe(({ theme }) => {
    if (useReader.getState().id !== 0) usePreferences.setState({ theme });
  });
}

function sendWaiting(): void {
  const change = waiting;
  forgetWaiting();
  if (Object.keys(change).length > 0) api.put<OwnView>('/session/view', change).catch(showProblem);
}

function forgetWaiting(): void {
  clearTimeout(timer);
  waiting = {};
}
