import { afterAll, beforeAll, expect, it } from 'vitest';
import { setDistrictZone } from '../format';
import { dayOfInstant, instantOfLocal, localText } from './zone-time';

beforeAll(() => setDistrictZone('America/New_York'));
afterAll(() => setDistrictZone('UTC'));

it('an evening in the district is the next day elsewhere, and its own day there', () => {
  expect(dayOfInstant('2026-01-24T02:30:00Z')).toBe('2026-01-23');
  expect(localText('2026-01-24T02:30:00Z')).toBe('2026-01-23T21:30');
});

it.each(['2026-01-14T08:00', '2026-07-14T08:00', '2026-03-08T03:30', '2026-11-01T00:30'])(
  '%s comes back as it was typed',
  (text) => {
    expect(localText(instantOfLocal(text)!)).toBe(text);
  },
);

it('an hour that summer time leaves out becomes the one after it, and no text no instant', () => {
  expect(localText(instantOfLocal('2026-03-08T02:30')!)).toBe('2026-03-08T03:30');
  expect([instantOfLocal(''), instantOfLocal('soon')]).toEqual([undefined, undefined]);
});
