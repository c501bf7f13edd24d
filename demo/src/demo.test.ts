import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { makeDistrict, type Demo } from './make-district.js';

let demo: Demo;
beforeAll(() => {
  demo = makeDistrict();
});

const read = (path: string) => readFileSync(new URL(`../${path}`, import.meta.url));

describe('the demo district', () => {
  it('is of the size that it is said to be', () => {
    const { people, courses, sections, scores } = demo.district;
    const count = (kind: string) => people.filter((person) => person.kind === kind).length;
    expect([count('student'), count('staff'), courses.length]).toEqual([1150, 73, 90]);
    expect(sections.length).toBeGreaterThan(300);
    expect(sections.length).toBeLessThan(320);
    expect(scores.length).toBeGreaterThan(70_000);
  });

  it('is the same at every call, and the files beside it are made from it', () => {
    const again = makeDistrict();
    expect(again.district.scores).toEqual(demo.district.scores);
    expect(again.plantedFaults).toEqual(demo.plantedFaults);
    expect(readdirSync(new URL('../files', import.meta.url)).toSorted()).toEqual(
      demo.files.map(({ name }) => name).toSorted(),
    );
    for (const { name, bytes } of demo.files) expect(read(`files/${name}`).equals(bytes)).toBe(true);
    expect(JSON.parse(read('planted-faults.json').toString())).toEqual(demo.plantedFaults);
  });

  it('gives no two people the same name, number or address', () => {
    for (const key of ['sourcedId', 'email'] as const) {
      expect(new Set(demo.district.people.map((person) => person[key])).size).toBe(demo.district.people.length);
    }
  });

  it('enrols nobody twice in a section, and lets nobody leave in the future', () => {
    const { enrollments } = demo.district;
    expect(new Set(enrollments.map(({ sectionId, studentId }) => `${sectionId}/${studentId}`)).size).toBe(
      enrollments.length,
    );
    expect(enrollments.filter(({ withdrawnOn }) => withdrawnOn !== null && withdrawnOn > '2026-01-21')).toEqual([]);
  });
});
