import { usualView } from '#core/people';
import { cleanup, configure } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach } from 'vitest';
import { useKeptDrafts } from '../src/shell/kept-drafts';
import { borrowOwnView } from '../src/shell/kept-view';

/* Tests of components share what is loaded: what one leaves behind is cleared before the next one. */

// As long as a poll waits: a limit against hanging, not a measure of speed.
configure({ asyncUtilTimeout: 30_000 });

afterEach(() => {
  toast.dismiss();
  cleanup();
  localStorage.clear();
  borrowOwnView(usualView);
  useKeptDrafts.setState({ personId: 0, kinds: {}, isKept: true });
});
