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
    expect([count('student'), count('staff'), courses.length]).toEqual([1215, 81, 108]);
    expect(sections.length).toBe(329);
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
    expect(JSON.parse(read('decoys.json').toString())).toEqual(demo.decoys);
  });

  it('gives no two people the same name, number or address', () => {
    const { people } = demo.district;
    expect(new Set(people.map(({ sourcedId }) => sourcedId)).size).toBe(people.length);
    // The one who is listed twice has no address the second time.
    const addresses = people.map(({ email }) => email).filter((email) => email !== '');
    expect([new Set(addresses).size, addresses.length]).toEqual([people.length - 1, people.length - 1]);
  });

  it('has one student listed twice, and one who changed sections in the middle of a quarter', () => {
    const { people, enrollments } = demo.district;
    const typed = people.find(({ isMadeHere }) => isMadeHere)!;
    const twin = people.find(
      (person) => !person.isMadeHere && person.familyName === typed.familyName && person.birthDate === typed.birthDate,
    )!;
    expect(twin.givenName.startsWith(typed.givenName)).toBe(true);
    const moved = enrollments.find(({ enteredOn }) => enteredOn === '2025-10-06')!;
    const before = enrollments.find(
      ({ studentId, withdrawnOn }) => studentId === moved.studentId && withdrawnOn === '2025-10-03',
    )!;
    expect(before.sectionId).not.toBe(moved.sectionId);
  });

  it('enrols nobody twice in a section, and lets nobody leave in the future', () => {
    const { enrollments } = demo.district;
    expect(new Set(enrollments.map(({ sectionId, studentId }) => `${sectionId}/${studentId}`)).size).toBe(
      enrollments.length,
    );
    expect(enrollments.filter(({ withdrawnOn }) => withdrawnOn !== null && withdrawnOn > '2026-01-21')).toEqual([]);
  });
});

describe('the school that came with its records', () => {
  it('has, for each fault that is planted in it, a place of its own, and none where it is right', () => {
    const place = ({ rule, section, student, course, item }: Demo['decoys'][number]) =>
      `${rule}: ${section ?? course ?? item}, ${student}`;
    const own = demo.plantedFaults.filter(({ period }) => period !== 'Quarter 2').map(place);
    expect(new Set(own).size).toBe(own.length);
    expect(demo.decoys.map(place).filter((each) => own.includes(each))).toEqual([]);
  });

  it('changes nothing of the schools beside it', () => {
    const { people, enrollments, grades } = demo.district;
    const own = new Set(people.filter(({ schoolId }) => schoolId === 4).map(({ id }) => id));
    const seats = new Map(enrollments.map(({ id, studentId }) => [id, studentId]));
    expect(enrollments.findIndex(({ studentId }) => own.has(studentId))).toBe(
      enrollments.findLastIndex(({ studentId }) => !own.has(studentId)) + 1,
    );
    expect(grades.findIndex(({ enrollmentId }) => own.has(seats.get(enrollmentId)!))).toBe(
      grades.findLastIndex(({ enrollmentId }) => !own.has(seats.get(enrollmentId)!)) + 1,
    );
  });
});
