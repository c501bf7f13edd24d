import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomGrades, randomMarks } from '../../test/random-grades.fixture.js';
import { item, periodOf, seat, section, sheet } from '../../test/section-fact.fixture.js';
import {
  auditRules,
  findingKey,
  recheck,
  rulesOfOneSection,
  runRules,
  outcomesOf,
  type Finding,
  type GradeFact,
  type SectionFact,
} from './index.js';

/** Four sections of two courses, ten students each: enough for patterns, which are no matter of one section. */
const sectionIds = [31, 32, 33, 34];
const district = fc
  .array(randomGrades, { minLength: 40, maxLength: 40 })
  .map((grades) => grades.map((fact, at) => ({ ...fact, enrollmentId: at, sectionId: sectionIds[at % 4]!, item })));

/** What people do after an audit: a grade is saved, or a sheet is signed off or taken back. */
const deeds = fc.array(
  fc.oneof(
    fc.record({ enrollmentId: fc.nat(39), mark: randomMarks }),
    fc.record({ sectionId: fc.constantFrom(...sectionIds), isSignedOff: fc.boolean() }),
  ),
  { maxLength: 12 },
);

interface State {
  readonly grades: readonly GradeFact[];
  readonly signedOff: ReadonlySet<number>;
}

function periodWith({ grades, signedOff }: State, only = sectionIds) {
  const sections = only.map((id): SectionFact => {
    const own = grades.filter(({ sectionId }) => sectionId === id);
    return section({
      id,
      name: `Weaving ${id}`,
      course: { ...section().course, id: id < 33 ? 5 : 6 },
      students: own.map(({ enrollmentId }) => seat({ enrollmentId, studentId: 500 + (enrollmentId % 17) })),
      sheets: [sheet({ isSignedOff: signedOff.has(id) })],
    });
  });
  return periodOf(
    sections,
    grades.filter(({ sectionId }) => only.includes(sectionId)),
  );
}

type Deed =
  | { readonly enrollmentId: number; readonly mark: GradeFact['mark'] }
  | { readonly sectionId: number; readonly isSignedOff: boolean };
const after = (state: State, deed: Deed): State => {
  if ('mark' in deed) {
    const grades = state.grades.map((grade) =>
      grade.enrollmentId === deed.enrollmentId ? { ...grade, mark: deed.mark } : grade,
    );
    return { ...state, grades };
  }
  const signedOff = new Set(state.signedOff);
  if (deed.isSignedOff) signedOff.add(deed.sectionId);
  else signedOff.delete(deed.sectionId);
  return { ...state, signedOff };
};
const sectionOf = (deed: Deed) => ('sectionId' in deed ? deed.sectionId : sectionIds[deed.enrollmentId % 4]!);
const sectionOfFinding = ({ sectionId, enrollmentId }: Finding) =>
  sectionId ?? (enrollmentId === null ? null : sectionIds[enrollmentId % 4]!);
/** With all that they say. */
const texts = (findings: readonly Finding[]) =>
  findings.map((each) => `${findingKey(each)} ${each.message} ${JSON.stringify(each.data)}`).toSorted();

describe('a look at the sections that were changed', () => {
  it('finds what an audit of everything would find, after any sequence of changes', () => {
    fc.assert(
      fc.property(district, deeds, (grades, done) => {
        const begun: State = { grades, signedOff: new Set([31, 33]) };
        const before = runRules(auditRules, periodWith(begun));
        const ended = done.reduce(after, begun);
        const touched = [...new Set(done.map(sectionOf))];
        const found = before.filter((finding) => touched.includes(sectionOfFinding(finding) ?? -1));
        const now = outcomesOf(rulesOfOneSection, periodWith(ended, touched));
        const { gone, still, added } = recheck(found, now);
        const looked = new Set(rulesOfOneSection.map(({ id }) => id));
        const isLooked = ({ ruleId }: Finding) => looked.has(ruleId);
        const kept = before
          .filter((finding) => isLooked(finding) && !gone.has(findingKey(finding)))
          .map((finding) => still.get(findingKey(finding)) ?? finding);
        const whole = runRules(auditRules, periodWith(ended)).filter(isLooked);
        expect(texts([...kept, ...added])).toEqual(texts(whole));
        // What other rules found is left as it was.
        expect(found.filter((finding) => !isLooked(finding) && gone.has(findingKey(finding)))).toEqual([]);
      }),
      { seed: 20_261_201, numRuns: 200 },
    );
  });

  it('leaves what a rule found that cannot look now', () => {
    const found: Finding = {
      ruleId: 'zero-posted',
      enrollmentId: 1,
      sectionId: null,
      courseId: null,
      itemId: 7,
      message: 'zero',
      data: {},
    };
    expect(recheck([found], { findings: [], faults: [] }).gone).toEqual(new Set([findingKey(found)]));
    const faults = [{ ruleId: 'zero-posted', problem: 'no scale' }];
    expect(recheck([found], { findings: [], faults })).toEqual({ gone: new Set(), still: new Map(), added: [] });
  });

  it('is by all rules but those that compare sections', () => {
    const left = auditRules.filter((rule) => !rulesOfOneSection.includes(rule));
    expect(left.map(({ id }) => id)).toEqual([
      'item-without-window',
      'enrolled-twice',
      'sections-weighted-differently',
      'course-without-credits',
      'crowding-above-cut-off',
      'round-numbers',
      'unlike-sister-sections',
    ]);
  });
});
