import { expect, it } from 'vitest';
import { localTime } from './local-time.js';

// The offsets of these zones are facts of the IANA time zone database.
it.each([
  ['Europe/London', '2026-01-21T10:42:00Z', '2026-01-21', '10:42'],
  ['Europe/London', '2026-03-29T00:59:00Z', '2026-03-29', '00:59'],
  ['Europe/London', '2026-03-29T01:00:00Z', '2026-03-29', '02:00'],
  ['America/Los_Angeles', '2026-01-23T07:59:00Z', '2026-01-22', '23:59'],
  ['America/Los_Angeles', '2026-01-23T08:00:00Z', '2026-01-23', '00:00'],
  ['Asia/Kathmandu', '2025-12-31T18:15:00Z', '2026-01-01', '00:00'],
  ['Pacific/Kiritimati', '2025-12-31T10:00:00Z', '2026-01-01', '00:00'],
])('the clocks of %s show at %s: %s, %s', (zone, instant, day, time) => {
  expect(localTime(zone, new Date(instant))).toEqual({ day, time });
});

it('a zone that there is not is refused', () => {
  expect(() => localTime('Sea/Middle', new Date(0))).toThrow(RangeError);
});
