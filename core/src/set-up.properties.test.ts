import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  checkCalendar,
  dayOrThrow,
  moveEdge,
  partOfPeriod,
  type Period,
  type PeriodEdge,
} from '#core/calendar';
import { planRows } from '#core/cell-tables';
import { courseFields, cellFault, courseTable, tidyCell, type Course, type CourseCells } from '#core/courses';
import { compareDecimals, unitsAt } from '#core/numbers';
import { coverage, coverageChange, reportsItem, type Exception, type Rule } from '#core/report-items';
import { checkStatedEnds, deriveBands, findBand, orderBands, settleStatedEnds, type StatedBand } from '#core/scales';
import { roundHalfUp } from '#core/numbers';
import { letterBands } from '../test/letter-scale.fixture.js';

/* What must hold of a set-up, whatever the values. */

const seed = { seed: 20_260_121 };

describe('rules and exceptions', () => {
  const departments = ['Sea', 'Letters'] as const;
  const kinds = ['academic', 'activity'] as const;
  const courses = fc
    .array(fc.record({ department: fc.constantFrom(...departments), kind: fc.constantFrom(...kinds) }), {
      minLength: 1,
      maxLength: 12,
    })
    .map((list) =>
      list.map(({ department, kind }, at): Course => ({
        id: at + 1,
        schoolId: 1,
        code: `C${at}`,
        title: `Course ${at}`,
        department,
        kind,
        level: 'regular',
        length: 'year',
        credits: {
          units: 1n,
          digits: 0,
        },
        mostCredits: null,
        onTranscript: true,
        countsInGpa: true,
        allowsExempt: true,
      })),
    );
  const effects = fc.constantFrom('reports' as const, 'omits' as const);
  const rules = fc
    .array(
      fc.record({
        itemId: fc.integer({ min: 1, max: 3 }),
        effect: effects,
        department: fc.option(fc.constantFrom(...departments)),
        kind: fc.option(fc.constantFrom(...kinds)),
      }),
      { maxLength: 8 },
    )
    .map((list) =>
      list.map((rule, at): Rule => ({ ...rule, id: at, schoolId: 1, level: null, length: null, position: at })),
    );
  const exceptions = fc.uniqueArray(
    fc.record({ itemId: fc.integer({ min: 1, max: 3 }), courseId: fc.integer({ min: 1, max: 12 }), effect: effects }),
    { selector: ({ itemId, courseId }) => `${itemId}/${courseId}`, maxLength: 6 },
  );
  const numbered = (list: readonly Omit<Exception, 'id' | 'reason'>[]) =>
    list.map((each, at): Exception => ({ ...each, id: at, reason: '' }));

  it('a rule put last decides every course that it speaks of and that has no exception', () => {
    fc.assert(
      fc.property(courses, rules, exceptions, effects, (all, before, own, effect) => {
        const last: Rule = {
          id: 99,
          schoolId: 1,
          itemId: 1,
          effect,
          department: 'Sea',
          level: null,
          kind: null,
          length: null,
          position: 99,
        };
        const covered = coverage(all, { rules: [...before, last], exceptions: numbered(own) });
        const decided = covered.flatMap((each) => {
          const exception = own.find(({ itemId, courseId }) => itemId === 1 && courseId === each.course.id);
          const wanted = exception?.effect ?? (each.course.department === 'Sea' ? effect : undefined);
          return wanted ? [[reportsItem(each, 1), wanted === 'reports']] : [];
        });
        expect(decided.filter(([is, should]) => is !== should)).toEqual([]);
      }),
      seed,
    );
  });

  it('what a change adds and removes is what tells the two coverages apart, and changing back adds what it removed', () => {
    fc.assert(
      fc.property(courses, rules, rules, exceptions, (all, before, after, own) => {
        const [was, will] = [before, after].map((list) => ({ rules: list, exceptions: numbered(own) }));
        const items = [1, 2, 3];
        const there = coverageChange(all, was!, will!, items);
        const back = coverageChange(all, will!, was!, items);
        const ids = (list: readonly Course[]) => list.map(({ id }) => id);
        expect(back.map(({ itemId, added, removed }) => [itemId, ids(removed), ids(added)])).toEqual(
          there.map(({ itemId, added, removed }) => [itemId, ids(added), ids(removed)]),
        );
        expect(coverageChange(all, was!, was!, items)).toEqual([]);
      }),
      seed,
    );
  });
});

describe('a calendar whose edges are moved', () => {
  const year: Period = {
    id: 1,
    parentId: null,
    kind: 'year',
    name: 'Year',
    startsOn: dayOrThrow('2025-09-01'),
    endsOn: dayOrThrow('2026-06-26'),
  };
  const quarter = (id: number, startsOn: string, endsOn: string): Period => ({
    id,
    parentId: 1,
    kind: 'quarter',
    name: `Quarter ${id - 1}`,
    startsOn: dayOrThrow(startsOn),
    endsOn: dayOrThrow(endsOn),
  });
  const calendar = {
    weekdays: [1, 2, 3, 4, 5],
    breaks: [{ id: 1, name: 'Winter break', startsOn: dayOrThrow('2025-12-22'), endsOn: dayOrThrow('2026-01-02') }],
    periods: [
      year,
      quarter(2, '2025-09-01', '2025-11-07'),
      quarter(3, '2025-11-10', '2026-01-30'),
      quarter(4, '2026-02-02', '2026-04-03'),
      quarter(5, '2026-04-06', '2026-06-26'),
    ],
  };
  const edges = fc.constantFrom<PeriodEdge>('startsOn', 'endsOn');
  const moves = fc.array(fc.tuple(fc.constantFrom(2, 3, 4, 5), edges, fc.integer({ min: -20, max: 20 })), {
    maxLength: 12,
  });

  it('keeps every period at least a day long, and touching periods never share a day nor leave one with classes', () => {
    fc.assert(
      fc.property(moves, (steps) => {
        let periods = calendar.periods;
        for (const [id, edge, days] of steps) {
          const period = periods.find((each) => each.id === id)!;
          // A step no longer than its neighbours are, as in a drag.
          const next = moveEdge(
            { ...calendar, periods },
            id,
            edge,
            addDays(period[edge], Math.sign(days) * Math.min(5, Math.abs(days))),
          );
          if (next.every(({ startsOn, endsOn }) => Date.parse(endsOn) - Date.parse(startsOn) > 20 * 86_400_000))
            periods = next;
        }
        expect(periods.every(({ startsOn, endsOn }) => startsOn <= endsOn)).toBe(true);
        const faults = checkCalendar({ ...calendar, periods, windows: [], sections: [] });
        const between = faults.filter(
          ({ code, data }) => code === 'periods-overlap' || (code === 'periods-gap' && data['before'] !== 'Year'),
        );
        expect(between).toEqual([]);
      }),
      seed,
    );
  });

  it('60 % of a period is over inside it, after more than half of its days', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 1, max: 120 }), (from, length) => {
        const startsOn = addDays(year.startsOn, from);
        const period = { startsOn, endsOn: addDays(startsOn, length) };
        const { days, leftOut, sixtyPercentDay } = partOfPeriod(period, calendar.weekdays, calendar.breaks);
        expect(days + leftOut.reduce((sum, each) => sum + each.days, 0)).toBe(length + 1);
        expect(sixtyPercentDay >= period.startsOn && sixtyPercentDay <= period.endsOn).toBe(true);
      }),
      seed,
    );
  });
});

describe('scales', () => {
  const tenth = (units: number) => ({ units: BigInt(units), digits: 1 });
  const stated = fc
    .uniqueArray(fc.integer({ min: 10, max: 950 }), { minLength: 1, maxLength: 6 })
    .chain((cuts) =>
      fc.tuple(
        fc.constant(cuts.toSorted((a, b) => b - a)),
        fc.array(fc.integer({ min: -8, max: 8 }), { minLength: cuts.length + 1, maxLength: cuts.length + 1 }),
      ),
    )
    .map(([cuts, slips]): StatedBand[] =>
      [...cuts, 0].map((cut, at) => {
        const end = at === 0 ? 1000 : cuts[at - 1]! - 1 + slips[at]!;
        return { label: String(at), lowest: tenth(cut), highest: tenth(Math.max(cut, Math.min(1000, end))) };
      }),
    );

  it('whatever ends are stated, settling one fault after another ends with none', () => {
    fc.assert(
      fc.property(stated, fc.boolean(), (bands, keepsUpper) => {
        let now = bands;
        for (let step = 0; step < 40; step++) {
          const [fault] = checkStatedEnds(now, 1);
          if (!fault) break;
          now = settleStatedEnds(now, fault, keepsUpper ? 'upper' : 'lower', 1);
        }
        expect(checkStatedEnds(now, 1)).toEqual([]);
      }),
      seed,
    );
  });

  it('a scale tied to another gives no label that the other would not give within the shift', () => {
    const precision = { digits: 1, rounding: roundHalfUp };
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: -20, max: 20 }), (value, shift) => {
        const tied = deriveBands(letterBands, { cutOffs: tenth(shift), points: tenth(0) });
        const own = findBand(tied, tenth(value), precision).band!;
        const moved = Math.min(1000, Math.max(0, value - shift));
        const other = findBand(letterBands, tenth(moved), precision).band!;
        const place = (label: string) => orderBands(letterBands).findIndex((band) => band.label === label);
        // Kept within 0 to 100, a shifted cut-off may lie nearer than the shift, never farther.
        expect(Math.abs(place(own.label) - place(other.label))).toBeLessThanOrEqual(1);
        const bottom = orderBands(tied).at(-1)!;
        expect(compareDecimals(bottom.lowest!, { units: 0n, digits: 0 })).toBe(0);
        expect(orderBands(tied).every(({ lowest }) => unitsAt(lowest!, 1) >= 0n && unitsAt(lowest!, 1) <= 1000n)).toBe(
          true,
        );
      }),
      seed,
    );
  });
});

describe('cells of courses', () => {
  const texts = fc.oneof(
    fc.string({ maxLength: 12 }),
    fc.constantFrom('yes', 'NO', 'Honours', 'year', '0,50', '1.25', '', ' ', '-1', '99.99999'),
  );

  it('tidied once they stay as they are, and what could be taken still can', () => {
    fc.assert(
      fc.property(fc.constantFrom(...courseFields), texts, (field, text) => {
        const tidy = tidyCell(field, text);
        expect(tidyCell(field, tidy)).toBe(tidy);
        expect(cellFault(field, tidy)).toBe(cellFault(field, text));
      }),
      seed,
    );
  });

  it('a file of what is there changes nothing, whatever order its columns and rows have', () => {
    const course = (id: number): { id: number; cells: CourseCells } => ({
      id,
      cells: {
        code: `C${id}`,
        title: `Course ${id}`,
        department: 'Sea',
        kind: '',
        level: 'regular',
        length: 'year',
        credits: id % 2 ? '0.5' : '',
        mostCredits: '',
        onTranscript: 'yes',
        countsInGpa: '',
        allowsExempt: 'no',
      },
    });
    const existing = [1, 2, 3, 4].map(course);
    const orders = fc.shuffledSubarray([...courseFields], { minLength: courseFields.length });
    fc.assert(
      fc.property(orders, fc.shuffledSubarray(existing, { minLength: 1 }), (fields, listed) => {
        const table = [fields.map(String), ...listed.map(({ cells }) => fields.map((field) => cells[field]))];
        const plan = planRows(courseTable, table, existing)!;
        expect(plan.rows.map(({ outcome }) => outcome)).toEqual(listed.map(() => 'same'));
      }),
      seed,
    );
  });
});
