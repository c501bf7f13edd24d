import { beforeEach, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { blankMark, sheetOf, sheetRow } from '../../test/sheet.fixture';
import { changeMarks, keepMarksOver, markDrafts, marksOf, settleMarks } from './mark-drafts';
import { discardDrafts } from '../shell/kept-drafts';

const draft = (percent: string, version = 1) => ({ mark: { ...blankMark, percent, label: 'B' }, version });
const sheet = sheetOf([
  sheetRow(7, { version: 4 }),
  sheetRow(8, { version: 5, withdrawnOn: dayOrThrow('2026-01-02') }),
]);

beforeEach(() => discardDrafts());

it('several changes are one step, which can be undone', () => {
  changeMarks('1/1/4', { 7: draft('80') });
  changeMarks('1/1/4', { 7: null, 8: draft('81'), 9: draft('82') });
  expect(Object.keys(marksOf('1/1/4'))).toEqual(['8', '9']);
  markDrafts.undo('1/1/4');
  expect(marksOf('1/1/4')).toEqual({ 7: draft('80') });
  markDrafts.undo('1/1/4');
  markDrafts.undo('1/1/4');
  expect(marksOf('1/1/4')).toEqual({});
});

it('the drafts of one sheet are nothing to another', () => {
  changeMarks('1/1/4', { 7: draft('80') });
  changeMarks('2/1/4', { 7: draft('90') });
  markDrafts.discard('1/1/4');
  expect([marksOf('1/1/4'), marksOf('2/1/4')]).toEqual([{}, { 7: draft('90') }]);
});

it('what is typed while a save is under way stays when it is done, over the versions saved', () => {
  changeMarks('1/1/4', { 7: draft('80'), 8: draft('81') });
  const sent = marksOf('1/1/4');
  changeMarks('1/1/4', { 8: draft('65'), 9: draft('66', 0) });
  settleMarks('1/1/4', sent, sheet);
  expect(marksOf('1/1/4')).toEqual({ 8: draft('65', 5), 9: draft('66', 0) });
});

it('what is typed goes on over what somebody else saved', () => {
  changeMarks('1/1/4', { 7: draft('80') });
  keepMarksOver('1/1/4', sheet);
  expect(marksOf('1/1/4')).toEqual({ 7: draft('80', 4) });
});
