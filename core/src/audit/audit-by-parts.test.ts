import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow } from '#core/numbers';
import { grade } from '../../test/grade-fact.fixture.js';
import { randomGrades } from '../../test/random-grades.fixture.js';
import { item, periodOf, seat, section, sheet } from '../../test/section-fact.fixture.js';
import {
  auditByParts,
  auditRules,
  ruleInForce,
  runRules,
  seenInPart,
  type AuditRule,
  type Finding,
  type GradeFact,
  type RuleInForce,
  type SectionFact,
  type Snapshot,
} from './index.js';

/** Twelve sections of four courses in three departments, fifteen students each: enough for every pattern. */
const sectionIds = Array.from({ length: 12 }, (_, at) => 31 + at);
const departments = ['Crafts', 'Sea', 'Letters', 'Crafts'];
const courseOf = (sectionId: number) => 5 + (sectionId % 4);

/** A district with what rules find in sections, in courses and in students beside it. */
const districts = fc
  .record({
    grades: fc.array(randomGrades, { minLength: 180, maxLength: 180 }),
    // Every other section is graded in one way, so that patterns show.
    alike: fc.array(fc.constantFrom('A', 'B', 'F', null), { minLength: 12, maxLength: 12 }),
    isOpen: fc.boolean(),
    odd: fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
  })
  .map(({ grades, alike, isOpen, odd }): Snapshot => {
    const facts = grades.map((fact, at): GradeFact => {
      const label = alike[at % 12];
      const own = { ...fact, enrollmentId: at, sectionId: sectionIds[at % 12]!, item };
      return label
        ? { ...own, withdrawnOn: null, mark: { ...grade({}).mark, percent: decimalOrThrow('90'), label } }
        : own;
    });
    const sections = sectionIds.map((id, at): SectionFact => {
      const course = { ...section().course, id: courseOf(id), department: departments[id % 4]! };
      return section({
        id,
        name: `Weaving ${id}`,
        course,
        ...(odd[at] ? { policy: null, credits: decimalOrThrow('0') } : {}),
        students: facts
          .filter(({ sectionId }) => sectionId === id)
          .map(({ enrollmentId }) => seat({ enrollmentId, studentId: 500 + (enrollmentId % 40) })),
        sheets: [sheet({ isSignedOff: odd[at]!, item: isOpen ? {} : { window: null } })],
      });
    });
    const stray = { enrollmentId: 1, itemId: 99, item: 'Term paper', by: 'course', shown: 'B' } as const;
    return periodOf(sections, facts, { strays: [stray] });
  });

/** Which part each section falls into. */
const cuts = fc.array(fc.nat(3), { minLength: 12, maxLength: 12 });
const partsOf = (whole: Snapshot, cut: readonly number[]): Snapshot[] =>
  [...new Set(cut)].map((part) => {
    const ids = new Set(sectionIds.filter((_id, at) => cut[at] === part));
    return {
      ...whole,
      sections: whole.sections.filter(({ id }) => ids.has(id)),
      grades: whole.grades.filter(({ sectionId }) => ids.has(sectionId)),
      strays: ids.has(sectionIds[1]!) ? whole.strays : [],
    };
  });

const settings = fc.constantFrom<Partial<RuleInForce>>(
  {},
  { severity: 'off' },
  { exceptions: { departments: ['Crafts'], courses: [] } },
  { exceptions: { departments: [], courses: [courseOf(31)] } },
);
const texts = (findings: readonly Finding[]) => findings.map((each) => JSON.stringify(each)).toSorted();

function audited(parts: readonly Snapshot[], inForce: ReadonlyMap<string, RuleInForce>, rules = auditRules) {
  const audit = auditByParts(rules, inForce);
  for (const part of parts) Array.from(audit.lookAt(part));
  Array.from(audit.conclude());
  return audit.outcomes();
}

describe('a period that is audited part by part', () => {
  it('has the findings of an audit of all at once, however it is cut and set', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(districts, cuts, settings, (whole, cut, set) => {
        const inForce = new Map(auditRules.map((rule) => [rule.id, { ...ruleInForce(rule, {}, {}), ...set }]));
        const { findings, faults } = audited(partsOf(whole, cut), inForce);
        const atOnce = runRules(auditRules, whole, inForce);
        expect(faults).toEqual([]);
        expect(texts(findings)).toEqual(texts(atOnce));
        for (const { ruleId } of atOnce) seen.add(ruleId);
      }),
      { seed: 20_261_201, numRuns: 60 },
    );
    const together = auditRules.filter((rule) => rule.together).map(({ id }) => id);
    expect(together.filter((id) => !seen.has(id))).toEqual([]);
  });

  it('has the same of parts that were looked at elsewhere and handed over as plain data, in whatever order', () => {
    fc.assert(
      fc.property(districts, cuts, settings, (whole, cut, set) => {
        const inForce = new Map(auditRules.map((rule) => [rule.id, { ...ruleInForce(rule, {}, {}), ...set }]));
        const parts = partsOf(whole, cut);
        const audit = auditByParts(auditRules, inForce);
        for (const part of parts.toReversed()) audit.take(structuredClone(seenInPart(auditRules, inForce, part)));
        Array.from(audit.conclude());
        expect(texts(audit.outcomes().findings)).toEqual(texts(audited(parts, inForce).findings));
      }),
      { seed: 20_261_202, numRuns: 30 },
    );
  });

  it('tells once of a rule that throws at parts that are looked at elsewhere', () => {
    let asked = 0;
    const throwing: AuditRule = {
      ...auditRules[0]!,
      id: 'broken',
      check: () => {
        throw new Error(`no such thing ${++asked}`);
      },
    };
    const audit = auditByParts([throwing], new Map());
    for (const part of [periodOf([], []), periodOf([], [grade({})])])
      audit.take(seenInPart([throwing], new Map(), part));
    expect(audit.outcomes()).toEqual({ findings: [], faults: [{ ruleId: 'broken', problem: 'no such thing 1' }] });
  });

  it('tells of a rule that throws at one part, takes nothing of it for found, and asks it no more', () => {
    let asked = 0;
    const throwing = {
      ...auditRules[0]!,
      id: 'broken',
      check: () => {
        if (++asked === 2) throw new Error('no such thing');
        return auditRules[0]!.check(periodOf([], [grade({})]), 0);
      },
    } satisfies AuditRule;
    const [whole] = fc.sample(districts, { seed: 7, numRuns: 1 });
    const parts = partsOf(
      whole!,
      sectionIds.map((_id, at) => at % 4),
    );
    const { findings, faults } = audited(parts, new Map(), [throwing, auditRules[1]!]);
    expect([asked, faults]).toEqual([2, [{ ruleId: 'broken', problem: 'no such thing' }]]);
    expect(new Set(findings.map(({ ruleId }) => ruleId))).not.toContain('broken');
  });
});
