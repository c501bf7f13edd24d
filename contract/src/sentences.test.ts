import { expect, it } from 'vitest';
import type { CalendarFault } from '#core/calendar';
import { newCode } from '#core/codes';
import { calendarFaultSentence } from '#contract/calendar';
import { familySentence, itemFaultSentence } from '#contract/report-items';
import { bodyOfCode, codeFaultSentence, codeOfBody } from '#contract/codes';

it('a fault of the calendar shows its days as the reader writes them', () => {
  const fault: CalendarFault = {
    code: 'window-before-end',
    severity: 'warns',
    of: 'window',
    id: 1,
    data: {
      item: 'Midterm',
      period: 'Winter term',
      closesOn: '2026-02-16',
      endsOn: '2026-03-27',
    },
  };
  expect(calendarFaultSentence(fault, (day) => day.split('-').toReversed().join('/'))).toBe(
    'The window of Midterm closes on 16/02/2026, before Winter term ends on 27/03/2026, and no reason is given.',
  );
});

it.each([
  ['label', 'posted', 'Families see the label as soon as it is posted.'],
  ['both', 'closed', 'Families see the percentage and the label once the posting window has closed.'],
  ['descriptor', 'sealed', 'Families see the descriptor in words once the period is sealed.'],
  ['hidden', 'sealed', 'Families do not see it.'],
] as const)('an item shown as %s from %s: %s', (familyView, familyTime, sentence) => {
  expect(familySentence({ familyView, familyTime })).toBe(sentence);
});

it('says what is wrong with items and codes by their names', () => {
  const item = { severity: 'warns', itemId: 1, courseId: 2 } as const;
  expect(
    itemFaultSentence({
      ...item,
      code: 'part-not-reported',
      data: { item: 'Semester grade', course: 'Knots', part: 'Exam' },
    }),
  ).toBe('Semester grade of Knots needs Exam, which the course does not report.');
  expect(codeFaultSentence({ code: 'code-twice', index: 1, data: { code: 'INC' } })).toBe(
    'INC is listed twice; each code may be used once.',
  );
});

it('a code comes over the wire as it went', () => {
  const code = newCode('NVA', 'Never attended', {
    asPart: 'counts',
    countsAs: { units: 0n, digits: 0 },
    isFailing: true,
  });
  expect(codeOfBody(bodyOfCode(code))).toEqual(code);
});
