import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { compareNames } from './compare-names.js';
import { indexPeople, matchPeople, matchPerson, type OurPerson, type TheirPerson } from './match-person.js';
import { byNeed } from './match-state.js';
import { nameSimilarity } from './name-similarity.js';
import { proposeSection } from './propose-section.js';
import { proposeTarget, type Target } from './propose-target.js';

describe('likeness of spelling', () => {
  // Winkler (1990), widely reprinted; from memory.
  it.each([
    ['MARTHA', 'MARHTA', 0.961],
    ['DWAYNE', 'DUANE', 0.84],
    ['DIXON', 'DICKSONX', 0.813],
  ])('of %s and %s is %f', (one, other, published) => {
    expect(nameSimilarity(one, other)).toBeCloseTo(published, 3);
  });

  it('is 1 for a name and itself, the same both ways, and between 0 and 1', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (one, other) => {
        const likeness = nameSimilarity(one, other);
        expect(nameSimilarity(one, one)).toBeCloseTo(1, 12);
        expect(likeness).toBeGreaterThanOrEqual(0);
        expect(likeness).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('two names of a category', () => {
  // The short forms are common practice.
  it.each([
    ['Homework', 'Homework', 100, 'same'],
    ['HOME-WORK', 'Homework', 98, 'case'],
    ['class work', 'Class Work', 98, 'case'],
    ['Quiz', 'Quizzes', 96, 'plural'],
    ['test', 'Tests', 96, 'plural'],
    ['HW', 'Homework', 92, 'abbreviation'],
    ['Asgmts', 'Assignments', 92, 'abbreviation'],
    ['Assign.', 'Assignments', 92, 'abbreviation'],
    ['Homwork', 'Homework', 87, 'spelling'],
    ['Tests and exams', 'Tests', 72, 'within'],
    ['Text', 'Tests', undefined, undefined],
    ['Projects', 'Homework', undefined, undefined],
    ['', 'Homework', undefined, undefined],
    ['***', 'Homework', undefined, undefined],
  ])('"%s" and "%s" are alike by %s', (theirs, ours, confidence, reason) => {
    const likeness = compareNames(theirs, ours);
    expect([likeness?.confidence, likeness?.reason.kind]).toEqual([confidence, reason]);
  });
});

const ours: readonly Target[] = [
  { key: '10', name: 'Class work', weight: 30 },
  { key: '11', name: 'Homework', weight: 10 },
  { key: '12', name: 'Quizzes', weight: 20 },
  { key: '13', name: 'Tests', weight: 40 },
];

describe('a proposal for a group', () => {
  it('is surer where the weight agrees and less sure where it does not', () => {
    const with10 = proposeTarget({ name: 'HW', weights: [10, 10] }, ours, []);
    const with15 = proposeTarget({ name: 'HW', weights: [15] }, ours, []);
    const without = proposeTarget({ name: 'HW', weights: [] }, ours, []);
    expect(with10).toEqual({
      state: 'proposed',
      best: { key: '11', confidence: 96, reasons: [{ kind: 'abbreviation' }, { kind: 'weight', weight: 10 }] },
    });
    expect(with15).toMatchObject({
      best: { confidence: 86, reasons: [{ kind: 'abbreviation' }, { kind: 'otherWeight', theirs: 15, ours: 10 }] },
    });
    expect(without).toMatchObject({ best: { key: '11', confidence: 92 } });
  });

  it('follows what was chosen in other sections, whatever it is called', () => {
    expect(proposeTarget({ name: 'Bits and bobs', weights: [] }, ours, [{ key: '10', times: 43 }])).toEqual({
      state: 'proposed',
      best: { key: '10', confidence: 97, reasons: [{ kind: 'earlier', times: 43 }] },
    });
  });

  it('for a name that was decided once is never something else without asking', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...ours), fc.integer({ min: 1, max: 200 }), (name, { key }, times) => {
        const proposed = proposeTarget({ name, weights: [] }, ours, [{ key, times }]);
        expect(proposed.state === 'proposed' ? proposed.best.key : key).toBe(key);
        expect(proposed.state).not.toBe('unmatched');
      }),
    );
  });

  it('is a conflict where other sections chose differently', () => {
    const proposed = proposeTarget({ name: 'Short tests', weights: [] }, ours, [
      { key: '12', times: 5 },
      { key: '13', times: 2 },
    ]);
    expect(proposed).toMatchObject({ state: 'conflicting', between: [{ key: '12' }, { key: '13' }] });
  });

  it('is a conflict where a name holds two of ours', () => {
    expect(proposeTarget({ name: 'Quizzes & Tests', weights: [] }, ours, [])).toMatchObject({
      state: 'conflicting',
      between: [{ key: '12' }, { key: '13' }],
    });
  });

  it('rests on the weight alone only where one of ours has it', () => {
    expect(proposeTarget({ name: 'Sundries', weights: [40, 40] }, ours, [])).toEqual({
      state: 'proposed',
      best: { key: '13', confidence: 55, reasons: [{ kind: 'onlyWeight', weight: 40 }] },
    });
    const alike = ours.map((target) => ({ ...target, weight: 25 }));
    expect(proposeTarget({ name: 'Sundries', weights: [25] }, alike, [])).toEqual({ state: 'unmatched' });
  });

  it('of the very same name is taken whatever else comes near', () => {
    const near: readonly Target[] = [...ours, { key: '14', name: 'Test', weight: null }];
    expect(proposeTarget({ name: 'Tests', weights: [] }, near, [])).toMatchObject({
      state: 'proposed',
      best: { key: '13', confidence: 100 },
    });
  });
});

describe('a class', () => {
  const students = (from: number, to: number) => new Set(Array.from({ length: to - from }, (_each, at) => from + at));
  const sections = [
    { sectionId: 1, name: 'Tidal Ecology 1', code: 'PEU-104-1', students: students(0, 20) },
    { sectionId: 2, name: 'Tidal Ecology 2', code: 'PEU-104-2', students: students(20, 40) },
  ];

  it('is the section that its students sit in, even under another number', () => {
    const theirs = { title: 'Tidal Ecology 2', code: null, students: students(0, 20) };
    expect(proposeSection(theirs, sections)).toMatchObject({
      state: 'proposed',
      best: {
        sectionId: 1,
        confidence: 89,
        reasons: [{ kind: 'students', common: 20, of: 20 }, { kind: 'titleLike' }],
      },
    });
  });

  it('with the code of a section is that section, unless nobody is in both', () => {
    const theirs = { title: 'TE', code: 'peu 104 2' };
    expect(proposeSection({ ...theirs, students: students(30, 50) }, sections)).toMatchObject({
      best: { sectionId: 2, confidence: 96 },
    });
    expect(proposeSection({ ...theirs, students: students(50, 60) }, sections)).toEqual({ state: 'unmatched' });
  });

  it('that is empty yet is proposed by its title, less surely, or by its code', () => {
    const empty = { title: 'Tidal Ecology (2)', code: null, students: new Set<number>() };
    const reasons = [{ kind: 'nobody' }, { kind: 'title' }];
    expect(proposeSection(empty, sections)).toEqual({
      state: 'proposed',
      best: { sectionId: 2, confidence: 60, reasons },
    });
    expect(proposeSection({ ...empty, code: 'PEU-104-1' }, sections)).toMatchObject({
      best: { sectionId: 1, confidence: 96 },
    });
  });

  it('half of whose students sit in each of two sections is a conflict', () => {
    expect(proposeSection({ title: 'Tidal Ecology', code: null, students: students(10, 30) }, sections)).toMatchObject({
      state: 'conflicting',
      between: [{ sectionId: 1 }, { sectionId: 2 }],
    });
  });

  it('with strangers and a strange title is unmatched', () => {
    expect(proposeSection({ title: 'Staff room', code: null, students: students(80, 90) }, sections)).toEqual({
      state: 'unmatched',
    });
  });
});

describe('a person', () => {
  const person = (id: number, over: Partial<OurPerson> = {}): OurPerson => ({
    id,
    sourcedId: `S${id}`,
    number: null,
    email: `s${id}@elowen.example`,
    givenName: 'Merryn',
    familyName: 'Skerry',
    birthDate: dayOrThrow(`2010-01-0${id}`),
    ...over,
  });
  const index = indexPeople([person(1), person(2), person(3, { familyName: 'Fenn', birthDate: null })]);
  const theirs = (over: Partial<TheirPerson>): TheirPerson => ({
    identifier: null,
    email: null,
    givenName: 'Merryn',
    familyName: 'Skerry',
    birthDate: null,
    ...over,
  });

  it.each([
    ['by number', { identifier: ' s1 ' }, { state: 'joined', personId: 1, by: 'identifier' }],
    ['by address', { email: 'S2@Elowen.example' }, { state: 'joined', personId: 2, by: 'email' }],
    [
      'by an unknown number but a known address',
      { identifier: 'X', email: 's2@elowen.example' },
      { state: 'joined', personId: 2, by: 'email' },
    ],
    [
      'by name and birth',
      { birthDate: dayOrThrow('2010-01-02') },
      { state: 'proposed', personId: 2, by: 'nameAndBirthDate' },
    ],
    ['by a name alone that one person has', { familyName: 'FENN' }, { state: 'proposed', personId: 3, by: 'name' }],
    ['by a name alone that two have', {}, { state: 'conflicting', personIds: [1, 2], by: 'sameName' }],
    ['by the name but another birth date', { birthDate: dayOrThrow('2009-05-05') }, { state: 'unmatched' }],
    [
      'with two ids',
      { identifier: 'S1', email: 's2@elowen.example' },
      { state: 'conflicting', personIds: [1, 2], by: 'twoIds' },
    ],
  ] as const)('is found %s', (_how, over, match) => {
    expect(matchPerson(theirs(over), index)).toEqual(match);
  });

  it('is nobody for sure by an address that brothers and sisters share; a number among theirs settles it', () => {
    const shared = { email: 'family@elowen.example' };
    const siblings = indexPeople([person(1, shared), person(2, { ...shared, givenName: 'Finn' })]);
    expect(matchPerson(theirs(shared), siblings)).toEqual({
      state: 'conflicting',
      personIds: [1, 2],
      by: 'sameAddress',
    });
    expect(matchPerson(theirs({ ...shared, identifier: 'S2' }), siblings)).toEqual({
      state: 'joined',
      personId: 2,
      by: 'identifier',
    });
  });

  it('is known by the number on the card or by the roster’s own id, unless these are two people’s', () => {
    const people = indexPeople([person(1, { number: '4711' }), person(2, { sourcedId: 'guid', number: 'S1' })]);
    const by = (identifier: string) => matchPerson(theirs({ identifier }), people);
    expect(by('4711')).toEqual({ state: 'joined', personId: 1, by: 'identifier' });
    expect(by('GUID')).toEqual({ state: 'joined', personId: 2, by: 'identifier' });
    expect(by('S1')).toEqual({ state: 'conflicting', personIds: [1, 2], by: 'twoIds' });
  });

  it('is nobody for sure where two accounts would be the same student, and the others are not held up', () => {
    const [first, second, other] = matchPeople(
      [theirs({ identifier: 'S1' }), theirs({ email: 's1@elowen.example' }), theirs({ identifier: 'S2' })],
      index,
    );
    const undecided = { state: 'conflicting', personIds: [1], by: 'twoAccounts' };
    expect([first, second, other]).toEqual([undecided, undecided, { state: 'joined', personId: 2, by: 'identifier' }]);
  });
});

it('what most needs a decision comes first, and the doubtful before the sure', () => {
  const sorted = [
    { state: 'joined', best: null },
    { state: 'proposed', best: { confidence: 99 } },
    { state: 'ignored', best: null },
    { state: 'proposed', best: { confidence: 55 } },
    { state: 'unmatched', best: null },
    { state: 'conflicting', best: null },
  ] as const;
  expect(sorted.toSorted(byNeed).map(({ state, best }) => best?.confidence ?? state)).toEqual([
    'conflicting',
    'unmatched',
    55,
    99,
    'joined',
    'ignored',
  ]);
});
