import 'reflect-metadata';
import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { describe, expect, it } from 'vitest';
import { SignInRequest } from '#contract/people';
import { MarkChangeBody, SaveSheetRequest } from '#contract/posting';
import { ItemRulesBody, ItemBody, RuleBody } from '#contract/report-items';
import { SaveCalendarRequest } from '#contract/calendar';
import { BandBody, SaveScaleRequest } from '#contract/scales';
import { AcceptImportRequest, ChooseColumnsRequest } from '#contract/files';

/** Paths of the fields at fault, as the server and the forms both find them. */
function faults<Body extends object>(type: ClassConstructor<Body>, body: object): string[] {
  const paths = (errors: ValidationError[], path: string): string[] =>
    errors.flatMap(({ property, constraints, children }) => [
      ...(constraints ? [path + property] : []),
      ...paths(children ?? [], `${path}${property}.`),
    ]);
  return paths(validateSync(plainToInstance(type, body)), '');
}

const band = {
  label: 'B+',
  lowest: '87.5',
  points: '3.3',
  passes: true,
  earnsCredit: true,
  descriptor: 'Good',
  isOff: false,
};
const change = {
  enrollmentId: 7,
  version: 0,
  percent: '86.45',
  label: 'B',
  code: null,
  lastDate: '2026-01-16',
  hours: '42.5',
  comment: '',
  isInternal: false,
  overrideReason: '',
};
const choices = { itemId: 1, effect: 'reports', department: null, level: 'honours', kind: null, length: 'year' };
const item = {
  name: 'Semester grade',
  heading: 'Semester',
  kind: 'final',
  periodKind: 'semester',
  ordinals: null,
  scaleId: null,
  categoryId: null,
  source: 'composite',
  countBy: 'percent',
  digits: 1,
  rounding: 'halfUp',
  highestPercent: '100',
  parts: [
    {
      itemId: 1,
      ordinal: 1,
      weight: '100',
    },
  ],
  commentRule: 'none',
  commentBelow: null,
  commentLength: 100,
  familyView: 'label',
  familyTime: 'closed',
  failingNeedsLastDate: false,
  asksHours: false,
  onTranscript: true,
  countsInGpa: true,
};
const period = { id: -1, parentId: null, kind: 'year', name: '2026–27', startsOn: '2026-08-31', endsOn: '2027-06-11' };
const window = {
  itemId: 1,
  periodId: -1,
  opensAt: '2027-06-03T08:00:00Z',
  closesAt: '2027-06-15T17:00:00Z',
  graceUntil: null,
  latePosters: 'registrars',
  earlyReason: '',
};
const calendar = { revision: 'r1', weekdays: [1, 2, 3, 4, 5], periods: [period], breaks: [], windows: [window] };

const choice = { idColumn: null, sectionId: null, sectionColumn: null, grades: [], namedSections: {} };

describe('what a request takes', () => {
  it.each<[string, ClassConstructor<object>, object]>([
    ['a band', BandBody, band],
    ['a band without points', BandBody, { ...band, points: null }],
    ['a whole scale', SaveScaleRequest, { basedOnVersion: 1, fromPeriodId: 4, bands: [band] }],
    ['a mark', MarkChangeBody, change],
    ['an empty mark', MarkChangeBody, { ...change, percent: null, label: null, lastDate: null }],
    ['a sheet', SaveSheetRequest, { changes: [change], outsideWindow: true }],
    ['the choices of a rule', RuleBody, choices],
    ['rules without exceptions', ItemRulesBody, { rules: [choices], exceptions: [] }],
    ['an item made of parts', ItemBody, item],
    ['a label without a cut-off', BandBody, { ...band, lowest: null }],
    ['a calendar with a new year', SaveCalendarRequest, calendar],
    ['columns not chosen yet', ChooseColumnsRequest, choice],
  ])('%s', (_what, type, body) => expect(faults(type, body)).toEqual([]));
});

describe('what a request does not take', () => {
  it.each<[string, ClassConstructor<object>, object, string[]]>([
    ['a cut-off of three digits after the point', BandBody, { ...band, lowest: '87.555' }, ['lowest']],
    ['a cut-off as a number', BandBody, { ...band, lowest: 87 }, ['lowest']],
    ['a label of nothing, points of a word', BandBody, { ...band, label: '', points: 'many' }, ['label', 'points']],
    [
      'a fault deep in a scale',
      SaveScaleRequest,
      { basedOnVersion: 1, fromPeriodId: 4, bands: [band, { ...band, lowest: '-1' }] },
      ['bands.1.lowest'],
    ],
    ['a percent in another notation', MarkChangeBody, { ...change, percent: '1e2' }, ['percent']],
    ['a day in another order', MarkChangeBody, { ...change, lastDate: '16-01-2026' }, ['lastDate']],
    ['a sheet without a change', SaveSheetRequest, { changes: [] }, ['changes']],
    [
      'a fault in the second change',
      SaveSheetRequest,
      { changes: [change, { ...change, version: '1' }] },
      ['changes.1.version'],
    ],
    ['a level that is none', RuleBody, { ...choices, level: 'grand' }, ['level']],
    ['a rule that neither reports nor omits', RuleBody, { ...choices, effect: 'may' }, ['effect']],
    [
      'an item of three decimals without a heading',
      ItemBody,
      { ...item, digits: 3, heading: '' },
      ['heading', 'digits'],
    ],
    [
      'a weight of a word',
      ItemBody,
      { ...item, parts: [{ itemId: 1, ordinal: 1, weight: 'half' }] },
      ['parts.0.weight'],
    ],
    ['a highest percentage below 100', ItemBody, { ...item, highestPercent: '99.99' }, ['highestPercent']],
    ['a highest percentage above 200', ItemBody, { ...item, highestPercent: '200.01' }, ['highestPercent']],
    ['no highest percentage', ItemBody, { ...item, highestPercent: '' }, ['highestPercent']],
    ['a comment below no label', ItemBody, { ...item, commentRule: 'requiredBelow' }, ['commentBelow']],
    [
      'a day that is none',
      SaveCalendarRequest,
      { ...calendar, periods: [{ ...period, endsOn: 'June' }] },
      ['periods.0.endsOn'],
    ],
    ['a week without a day', SaveCalendarRequest, { ...calendar, weekdays: [] }, ['weekdays']],
    [
      'a window that opens soon',
      SaveCalendarRequest,
      { ...calendar, windows: [{ ...window, opensAt: 'soon' }] },
      ['windows.0.opensAt'],
    ],
    [
      'a column left of the first',
      ChooseColumnsRequest,
      { ...choice, idColumn: -1, grades: [{ column: -2, itemId: 1 }] },
      ['idColumn', 'grades.0.column'],
    ],
    ['a preview without its number', AcceptImportRequest, { planNumber: '' }, ['planNumber']],
    ['nobody with no password', SignInRequest, { username: '', password: '' }, ['username', 'password']],
  ])('%s', (_what, type, body, expected) => expect(faults(type, body)).toEqual(expected));
});
