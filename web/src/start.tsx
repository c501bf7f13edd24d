import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './shell/app';
import { followPreferences } from './shell/preferences';

followPreferences();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
