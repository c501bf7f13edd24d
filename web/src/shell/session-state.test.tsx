import { describe, expect, it, vi } from 'vitest';
import { followSession, tellOtherTabs } from './session-state';

const [beginAnew, leave] = [vi.fn<() => void>(), vi.fn<() => void>()];
followSession(() => 7, { beginAnew, leave });

/** What another tab says reaches this one only. */
function otherTabSays(personId: number): void {
  tellOtherTabs(personId);
  window.dispatchEvent(new StorageEvent('storage', { key: 'wombat-signed-in', newValue: String(personId) }));
}

describe('what another tab does to the session', () => {
  it.each([
    [7, 'the same person again: nothing', []],
    [8, 'somebody else: the place begins anew', ['beginAnew']],
    [0, 'nobody: the way in, without the place of the person before', ['leave']],
  ])('signing in as %i is %s', (personId, _, happens) => {
    for (const each of [beginAnew, leave]) each.mockClear();
    otherTabSays(personId);
    expect([beginAnew.mock.calls.length && 'beginAnew', leave.mock.calls.length && 'leave'].filter(Boolean)).toEqual(
      happens,
    );
  });
});
