import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { deriveBands, scaleInForce, type ScalePlacement, type ScaleSeeker } from './index.js';
import { letterBands } from '../../test/letter-scale.fixture.js';

const place = (id: number, kind: ScalePlacement['kind'], more: Partial<ScalePlacement> = {}): ScalePlacement => ({
  id,
  kind,
  schoolId: kind === 'system' ? null : 1,
  department: null,
  level: null,
  courseId: null,
  sectionId: null,
  scaleId: id,
  isLocked: false,
  ...more,
});
const section: ScaleSeeker = { schoolId: 1, department: 'Sea', level: 'honours', courseId: 20, sectionId: 300 };
const chain = [
  place(6, 'section', { sectionId: 300 }),
  place(1, 'system'),
  place(2, 'school'),
  place(3, 'department', { department: 'Sea' }),
  place(4, 'level', { level: 'honours' }),
  place(5, 'course', { courseId: 20 }),
];
const locked = (id: number) => chain.map((each) => (each.id === id ? { ...each, isLocked: true } : each));
const found = (placements: ScalePlacement[], seeker = section) => {
  const inForce = scaleInForce(placements, seeker);
  return inForce && [inForce.placement.kind, inForce.overruled.map(({ kind }) => kind)];
};

describe('the scale in force', () => {
  it.each<[string, ScalePlacement[], ScaleSeeker, unknown]>([
    ['the section has the last word', chain, section, ['section', []]],
    ['without a section the course has it', chain, { ...section, sectionId: null }, ['course', []]],
    [
      'another course of the level follows the level',
      chain,
      { ...section, courseId: 21, sectionId: null },
      ['level', []],
    ],
    [
      'a regular course follows its department',
      chain,
      { ...section, level: 'regular', courseId: 21, sectionId: null },
      ['department', []],
    ],
    [
      'another school follows the system',
      chain,
      { ...section, schoolId: 2, courseId: 40, sectionId: 400 },
      ['system', []],
    ],
    [
      'a lock at the school overrules all below it',
      locked(2),
      section,
      ['school', ['department', 'level', 'course', 'section']],
    ],
    ['a lock at the course overrules the section', locked(5), section, ['course', ['section']]],
    ['nobody speaks of it', [], section, undefined],
  ])('%s', (_what, placements, seeker, expected) => expect(found(placements, seeker)).toEqual(expected));
});

describe('a scale tied to another', () => {
  const shift = (cutOffs: string, points: string) => ({
    cutOffs: decimalOrThrow(cutOffs),
    points: decimalOrThrow(points),
  });
  const row = (label: string, cutOffs: string, points: string) => {
    const band = deriveBands(letterBands, shift(cutOffs, points)).find((each) => each.label === label)!;
    return [formatDecimal(band.lowest!), band.points && formatDecimal(band.points)];
  };

  it('shifts every cut-off but the lowest, and points of passing bands', () => {
    // An honours scale often sits half a point or more above the ordinary one: common practice.
    expect([row('A', '-0.5', '0.5'), row('D', '-0.5', '0.5'), row('F', '-0.5', '0.5')]).toEqual([
      ['92.5', '4.5'],
      ['64.5', '1.5'],
      ['0', '0.0'],
    ]);
  });

  it('keeps cut-offs within 0 to 100 and points from falling below 0', () => {
    expect([row('A+', '5', '0'), row('D', '-70', '-1.5')]).toEqual([
      ['100', '4.0'],
      ['0', '0'],
    ]);
  });
});
