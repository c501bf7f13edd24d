import { beforeEach, describe, expect, it } from 'vitest';
import { createDraftStore } from './draft-store';
import { discardDrafts } from './kept-drafts';

const store = createDraftStore<{ cutOff: number }, number>('wombat-drafts-test');
const saved = { cutOff: 90 };
const change = (cutOff: number, isSameStep = false) => store.change(1, 3, saved, { cutOff }, isSameStep);

beforeEach(() => discardDrafts());

describe('a draft', () => {
  it('begins from what is saved and keeps what it began from', () => {
    change(89);
    store.change(1, 4, saved, { cutOff: 88 });
    expect(store.get(1)).toEqual({ basedOn: 3, now: { cutOff: 88 }, undo: [saved, { cutOff: 89 }] });
  });

  it('that is saved goes, and what was typed during the save stays, on the new base', () => {
    change(89);
    store.settle(1, { cutOff: 89 }, 4);
    expect(store.get(1)).toBeUndefined();
    change(89);
    change(88);
    store.settle(1, { cutOff: 89 }, 4);
    expect(store.get(1)).toEqual({ basedOn: 4, now: { cutOff: 88 }, undo: [{ cutOff: 89 }] });
    store.undo(1);
    expect(store.get(1)).toBeUndefined();
  });

  it('counts a drag as one step, however many moves it has', () => {
    change(89);
    change(88, true);
    change(87, true);
    change(85);
    store.undo(1);
    expect(store.get(1)).toEqual({ basedOn: 3, now: { cutOff: 87 }, undo: [saved] });
  });

  it('goes when its first step is taken back, and when it is changed back to what is saved', () => {
    change(89);
    store.undo(1);
    expect(store.get(1)).toBeUndefined();
    store.undo(1);
    change(89);
    change(90);
    expect(store.get(1)).toBeUndefined();
  });

  it('begins anew when a drag goes on over what is saved', () => {
    change(89);
    change(90, true);
    change(91, true);
    expect(store.get(1)!.undo).toEqual([saved]);
  });

  it('goes on from what somebody else saved, or is let go; others stay as they are', () => {
    change(89);
    store.change(2, 1, saved, { cutOff: 50 });
    store.rebase(1, 4);
    store.rebase(7, 4);
    expect([store.get(1)!.basedOn, store.get(7)]).toEqual([4, undefined]);
    store.discard(1);
    expect([store.get(1), store.get(2)!.now]).toEqual([undefined, { cutOff: 50 }]);
  });

  it('remembers a hundred steps and no more', () => {
    for (let step = 1; step <= 130; step++) change(-step);
    expect([store.get(1)!.undo.length, store.get(1)!.undo[0]]).toEqual([100, { cutOff: -30 }]);
  });
});
