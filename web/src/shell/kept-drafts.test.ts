import { beforeEach, describe, expect, it, onTestFinished } from 'vitest';
import { createDraftStore } from './draft-store';
import { countDrafts, discardDrafts, followOtherTabs, showDraftsOf, useKeptDrafts } from './kept-drafts';

const marks = createDraftStore<string, null>('marks');
const scales = createDraftStore<string, number>('scales');
const type = (sheet: string, text: string) => marks.change(sheet, null, '', text);
const typed = (sheet: string) => marks.get(sheet)?.now;
const [harun, morwenna] = [7, 8];

beforeEach(() => {
  localStorage.clear();
  showDraftsOf(0);
  showDraftsOf(harun);
});

describe('what somebody typed and did not save', () => {
  it('is that person’s: who signs in after them on the same browser sees none of it, and cannot save it', () => {
    type('13/1/4', '77');
    showDraftsOf(0);
    expect(typed('13/1/4')).toBeUndefined();
    showDraftsOf(morwenna);
    expect([typed('13/1/4'), countDrafts(useKeptDrafts.getState())]).toEqual([undefined, 0]);
    type('13/1/4', '50');
    showDraftsOf(harun);
    expect(typed('13/1/4')).toBe('77');
    showDraftsOf(morwenna);
    expect(typed('13/1/4')).toBe('50');
  });

  it('survives a reload, with its steps', () => {
    type('13/1/4', '7');
    type('13/1/4', '77');
    scales.change(3, 2, 'A', 'A+');
    showDraftsOf(0);
    showDraftsOf(harun);
    expect(marks.get('13/1/4')).toEqual({ basedOn: null, now: '77', undo: ['', '7'] });
    expect([scales.get(3)?.basedOn, countDrafts(useKeptDrafts.getState())]).toEqual([2, 2]);
  });

  it('is gone from the browser once it is saved or discarded, and nobody else’s with it', () => {
    type('13/1/4', '77');
    showDraftsOf(morwenna);
    type('95/1/4', '50');
    marks.settle('95/1/4', '50', null);
    expect(Object.keys(localStorage)).toHaveLength(1);
    type('95/1/4', '60');
    discardDrafts();
    expect([typed('95/1/4'), Object.keys(localStorage).length]).toEqual([undefined, 1]);
    showDraftsOf(harun);
    expect(typed('13/1/4')).toBe('77');
  });

  it.each(['', '{', 'null', '{"now":1}', '{"now":1,"basedOn":1,"undo":0}'])(
    'is not made of what an item holds that is none: %j',
    (text) => {
      type('13/1/4', '77');
      const [item] = Object.keys(localStorage);
      localStorage.setItem(item!, text);
      showDraftsOf(0);
      showDraftsOf(harun);
      expect(typed('13/1/4')).toBeUndefined();
    },
  );

  it('is told not to be kept while the browser keeps nothing, and stays on the page', () => {
    const { setItem } = localStorage;
    localStorage.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    onTestFinished(() => void delete (localStorage as { setItem?: unknown }).setItem);
    type('13/1/4', '77');
    expect([typed('13/1/4'), useKeptDrafts.getState().isKept]).toEqual(['77', false]);
    localStorage.setItem = setItem;
    type('13/1/4', '78');
    expect(useKeptDrafts.getState().isKept).toBe(true);
  });
});

describe('two tabs', () => {
  /** What a browser tells this tab of another one. */
  let told: (event: Partial<StorageEvent>) => void = () => undefined;
  const window = { addEventListener: (_name: string, listen: typeof told) => (told = listen) };
  Object.assign(globalThis, { window });
  followOtherTabs();
  const itemOf = (person: number, sheet: string) => `wombat-draft/3/${person}/marks/${sheet}`;
  const inOtherTab = (item: string, draft: object | null) => {
    const text = draft && JSON.stringify(draft);
    if (text === null) localStorage.removeItem(item);
    else localStorage.setItem(item, text);
    told({ key: item, newValue: text });
  };
  const draft = (now: string) => ({ basedOn: null, now, undo: [''] });

  it('keep what the other typed, whatever each of them saves or reloads', () => {
    type('13/1/4', '77');
    inOtherTab(itemOf(harun, '95/1/4'), draft('61'));
    expect([typed('13/1/4'), typed('95/1/4')]).toEqual(['77', '61']);
    type('13/1/4', '78');
    showDraftsOf(0);
    showDraftsOf(harun);
    expect([typed('13/1/4'), typed('95/1/4')]).toEqual(['78', '61']);
    inOtherTab(itemOf(harun, '95/1/4'), null); // saved there
    expect([typed('13/1/4'), typed('95/1/4')]).toEqual(['78', undefined]);
  });

  it('go on from one another on the same thing', () => {
    type('13/1/4', '77');
    inOtherTab(itemOf(harun, '13/1/4'), draft('77, late'));
    expect(typed('13/1/4')).toBe('77, late');
  });

  it('show nothing of what somebody else types there', () => {
    inOtherTab(itemOf(morwenna, '13/1/4'), draft('50'));
    expect(typed('13/1/4')).toBeUndefined();
  });
});
