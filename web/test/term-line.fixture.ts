import { dayOrThrow } from '#core/calendar';
import type { PeriodReply, TermLineReply } from '#contract/calendar';

type Posting = NonNullable<PeriodReply['posting']>;

const posting: Posting = {
  itemId: 1,
  itemName: 'Quarter grade',
  sections: 3,
  sectionsComplete: 2,
  window: null,
  sealedAt: null,
  audit: null,
};

/** The year of school 1, on Wednesday 21 January 2026; its period 4 is the chosen one. */
export function termLineOf(over: Partial<Posting> | null = {}): TermLineReply {
  const year = { id: 1, parentId: null, kind: 'year', name: '2025–26' } as const;
  const quarter = { id: 4, parentId: 1, kind: 'quarter', name: 'Quarter 2' } as const;
  return {
    school: { id: 1, name: 'Port Elowen Upper School', shortName: 'Upper School', takesAttendance: false },
    now: '2026-01-21T10:42:00Z',
    suggestedPeriodId: 4,
    periods: [
      { ...year, startsOn: dayOrThrow('2025-09-01'), endsOn: dayOrThrow('2026-06-19'), posting: null },
      {
        ...quarter,
        startsOn: dayOrThrow('2025-11-10'),
        endsOn: dayOrThrow('2026-01-23'),
        posting: over && { ...posting, ...over },
      },
    ],
  };
}
