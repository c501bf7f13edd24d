import { beforeEach, expect, it, vi } from 'vitest';

vi.stubGlobal('window', {
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
});
const { changeDraft, discardDraft, rebaseDraft, undoDraft, useScaleDrafts } = await import('./draft-store');

const bands = (lowest: string) => [
  { label: 'A', lowest, points: null, passes: true, earnsCredit: true, descriptor: '', isOff: false },
];
const draft = () => useScaleDrafts.getState().drafts[1];

beforeEach(() => useScaleDrafts.setState({ drafts: {} }));

it('a drag is one step, however many moves it has', () => {
  changeDraft(1, 3, bands('90'), bands('89'), false);
  changeDraft(1, 3, bands('90'), bands('88'), true);
  changeDraft(1, 3, bands('90'), bands('87'), false);
  expect([draft()!.basedOnVersion, draft()!.bands[0]!.lowest, draft()!.undo.length]).toEqual([3, '87', 2]);
  undoDraft(1);
  expect(draft()!.bands[0]!.lowest).toBe('88');
});

it('taking back the first step leaves no draft, and taking back nothing does nothing', () => {
  changeDraft(1, 3, bands('90'), bands('89'), false);
  undoDraft(1);
  undoDraft(1);
  expect(draft()).toBeUndefined();
});

it('a draft may go on from a version that was saved meanwhile, or be let go', () => {
  changeDraft(1, 3, bands('90'), bands('89'), false);
  rebaseDraft(1, 4);
  rebaseDraft(2, 4);
  expect([draft()!.basedOnVersion, useScaleDrafts.getState().drafts[2]]).toEqual([4, undefined]);
  discardDraft(1);
  expect(draft()).toBeUndefined();
});
