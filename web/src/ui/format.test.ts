import { describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import {
  onThePoint,
  setDistrictZone,
  showComputed,
  showDeadline,
  showDecimal,
  showGivenFirst,
  showLegalName,
  showName,
  showLabel,
  showPercent,
  showPrecision,
  showTime,
} from './format';
import { showOwnView } from './own-view';

describe('numbers', () => {
  it.each([
    ['86.40', '86.4'],
    ['90', '90.0'],
    ['86.45', '86.45'],
  ])('a percentage of %s is shown as %s', (text, expected) => expect(showPercent(text)).toBe(expected));

  it.each([
    ['89.4462', '89.44'],
    ['89.4499999999', '89.44'],
    ['73', '73.0'],
  ])('a computed %s is cut, never rounded up to a cut-off: %s', (text, expected) =>
    expect(showComputed(text)).toBe(expected),
  );

  it('credits have the digits asked for', () => expect(showDecimal('0.2500', 2)).toBe('0.25'));

  it('says a precision in words', () => {
    expect([showPrecision('halfUp', 1), showPrecision('down', 0), showPrecision('halfEven', 2)]).toEqual([
      'half up to 1 decimal',
      'down to whole percentages',
      'half to even to 2 decimals',
    ]);
  });
});

describe('times', () => {
  it('are the district’s, wherever the reader is', () => {
    setDistrictZone('Pacific/Auckland');
    expect(showTime('2026-01-23T04:00:00Z')).toBe('17:00');
    setDistrictZone('UTC');
    expect(showTime('2026-01-23T17:00:00Z')).toBe('17:00');
  });

  it('within a week are named by the day of the week', () => {
    expect(showDeadline('2026-01-23T17:00:00Z', '2026-01-21T10:42:00Z')).toMatch(/ at 17:00$/);
    expect(showDeadline('2026-01-23T17:00:00Z', '2026-01-21T10:42:00Z')).not.toMatch(/\d.* at/);
    expect(showDeadline('2026-04-07T17:00:00Z', '2026-01-21T10:42:00Z')).toMatch(/\d.* at 17:00$/);
  });
});

it('names and labels read as people write them', () => {
  expect([showGivenFirst('Carrow, Hale'), showLabel('A-'), showLabel('B+')]).toEqual(['Hale Carrow', 'A−', 'B+']);
});

it.each([
  ['95.13', '95.13'],
  ['68.6', '68.6\u00a0'],
  ['7', '7\u00a0\u00a0\u00a0'],
])('%s stands on the point in a column of two digits', (figure, shown) => {
  expect(onThePoint(figure, 2)).toBe(shown);
});

it('a name stands as the reader likes it, and on papers as the law has it', () => {
  const hal = 'Carrow, Hale “Hal”';
  showOwnView({ ...usualView, peopleOrder: 'given', names: 'preferred' });
  expect([showName(hal), showGivenFirst(hal), showLegalName(hal)]).toEqual([
    'Hal Carrow',
    'Hal Carrow',
    'Carrow, Hale',
  ]);
  showOwnView(usualView);
  expect([showName(hal), showGivenFirst(hal), showLegalName(hal)]).toEqual([hal, 'Hale “Hal” Carrow', 'Carrow, Hale']);
});
