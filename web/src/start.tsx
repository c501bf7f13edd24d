import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './shell/app';
import { followOtherTabs } from './shell/kept-drafts';
import { keepViewWhenLeft, rememberTheme } from './shell/kept-view';
import { followPreferences } from './shell/preferences';
import { followSession } from './shell/session-state';
import { useReader } from './ui/reader';

followPreferences();
rememberTheme();
keepViewWhenLeft();
followOtherTabs();
followSession(() => useReader.getState().id, {
  beginAnew: () => window.location.reload(),
  leave: () => window.location.replace('/sign-in'),
});
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
