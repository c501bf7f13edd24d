import { bareGrade, noSections, type GradeFact, type Snapshot } from '#core/audit';
import { dayOrThrow } from '#core/calendar';
import { newCode, type SpecialCode } from '#core/codes';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { noMark } from '#core/posting';
import { letterBands } from './letter-scale.fixture.js';

const code = (name: string, more: Partial<SpecialCode> = {}): [string, SpecialCode] => [
  name,
  newCode(name, name, { triesCredit: true, ...more }),
];
export const codes = new Map([
  code('INC', { needsLastDate: true, meaning: 'Incomplete' }),
  code('EXM', { asPart: 'leaves', triesCredit: false, meaning: 'Exempt' }),
  code('PAS', { asPart: 'leaves', earnsCredit: true }),
  code('P', { forbidsPercent: false }),
  code('NVA', { needsLastDate: true, needsFirstDay: true }),
  code('OLD', { isOff: true }),
  code('LAP', { lapsesInto: 'F', lapsesAfterDays: 2 }),
  code('DUE', { lapsesInto: 'F', lapsesAfterDays: 3 }),
]);

type Case = Partial<Omit<GradeFact, 'item' | 'scale'>> & {
  readonly item?: Partial<GradeFact['item']>;
  readonly scale?: Partial<GradeFact['scale']>;
};

/** A grade that no rule has anything against, changed as the case says. */
export function grade({ item, scale, ...more }: Case): GradeFact {
  return {
    ...bareGrade,
    enrollmentId: 1,
    sectionId: 31,
    mark: { ...noMark, percent: decimalOrThrow('86.4'), label: 'B' },
    item: {
      id: 7,
      name: 'Quarter grade',
      precision: { digits: 1, rounding: roundHalfUp },
      failingNeedsLastDate: false,
      highestPercent: decimalOrThrow('100'),
      isComposite: false,
      isOfBook: true,
      asksHours: false,
      commentRule: 'optional',
      commentBelow: null,
      commentLength: 30,
      onTranscript: true,
      countsInGpa: true,
      window: { opensAt: '2026-01-19T08:00:00Z', closesAt: '2026-01-23T17:00:00Z', graceUntil: '2026-01-26T17:00:00Z' },
      ...item,
    },
    scale: { name: 'Letter scale', bands: letterBands, highestLevel: null, ...scale },
    ...more,
  };
}
export const snapshot = (...grades: GradeFact[]): Snapshot => ({
  ...noSections,
  periodStartsOn: dayOrThrow('2025-11-10'),
  periodEndsOn: dayOrThrow('2026-01-30'),
  today: dayOrThrow('2026-02-02'),
  now: '2026-02-02T08:00:00.000Z',
  codes,
  grades,
});
