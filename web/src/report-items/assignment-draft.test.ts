import { beforeEach, expect, it, vi } from 'vitest';
import type { AssignmentBody, RuleBody } from '#contract/report-items';

vi.stubGlobal('window', {
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
});
const { changeAssignment, discardAssignment, rebaseAssignment, undoAssignment, useAssignmentDrafts } =
  await import('./assignment-draft');

const rule = (length: RuleBody['length']): RuleBody => ({
  itemId: 1,
  effect: 'reports',
  department: null,
  level: null,
  kind: null,
  length,
});
const saved: AssignmentBody = { rules: [rule(null)], exceptions: [] };
const changed: AssignmentBody = { rules: [rule('year')], exceptions: [] };
const draft = () => useAssignmentDrafts.getState().drafts[1];

beforeEach(() => useAssignmentDrafts.setState({ drafts: {} }));

it('a draft begins from what is saved, keeps its revision, and steps back to nothing', () => {
  changeAssignment(1, 'r1', saved, changed);
  changeAssignment(1, 'r2', saved, { ...changed, rules: [] });
  expect([draft()!.revision, draft()!.undo]).toEqual(['r1', [saved, changed]]);
  undoAssignment(1);
  expect(draft()!.now).toEqual(changed);
  undoAssignment(1);
  expect(draft()).toBeUndefined();
});

it('changed back to what is saved there is no draft any more', () => {
  changeAssignment(1, 'r1', saved, changed);
  changeAssignment(1, 'r1', saved, saved);
  expect(draft()).toBeUndefined();
});

it('goes on from what somebody else saved, or is let go', () => {
  changeAssignment(1, 'r1', saved, changed);
  rebaseAssignment(1, 'r2');
  expect([draft()!.revision, draft()!.now]).toEqual(['r2', changed]);
  discardAssignment(1);
  expect(draft()).toBeUndefined();
});
