import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './shell/app';
import { followTheme } from './shell/preferences';

followTheme();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
