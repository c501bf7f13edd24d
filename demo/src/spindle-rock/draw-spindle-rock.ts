import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { findBand } from '#core/scales';
import type { District, EnrollmentRow, SectionRow } from '../district.js';
import { bandsOf, bareGrade, postGrades } from '../draw-grades.js';
import { type DrawnStudent, pronounOf } from '../draw-people.js';
import { drawBooks, groupBySection, percentsOfBook } from '../draw-scores.js';
import { familyNames, givenNames } from '../names.js';
import { nameOf, writeOwnPlaces } from '../policies.js';
import type { Random } from '../random.js';
import { writeSchool } from '../write-set-up.js';
import { plantInBooks } from './plant-in-books.js';
import { spindleRockPlaces } from './places.js';
import { firstTerm, items, secondTerm, spindleRock, spindleRockSetUp, taught } from './spindle-rock.js';

/** What is drawn of the school, before anything but its grade books has a fault. */
export interface DrawnRock {
  readonly sections: readonly SectionRow[];
  /** A section of the second term, by its name. */
  readonly named: (name: string) => SectionRow;
  readonly enrollmentsOf: (section: SectionRow) => readonly EnrollmentRow[];
}

/** Writes the school with its people, sections, grade books and grades. Nothing of the other schools is touched. */
export function drawSpindleRock(district: District, random: Random): DrawnRock {
  writeSchool(district, spindleRock, spindleRockSetUp);
  placeScaleByDepartment(district);
  const people = drawPeople(district, random);
  const sections = [...drawSections(district, people, secondTerm), ...drawSections(district, people, firstTerm)];
  writeOwnPlaces(district, spindleRockPlaces);
  const percents = new Map(drawBooks(district, sections, people.students, random));
  const named = (name: string) => sections.find((each) => nameOf(district, each) === name)!;
  for (const section of plantInBooks(district, named))
    for (const [enrollmentId, percent] of percentsOfBook(district, section))
      percents.set(`${enrollmentId}/${section.periodId}`, percent);
  for (const [key, percent] of percents) {
    const [enrollmentId, periodId] = key.split('/').map(Number) as [number, number];
    district.calculatedGrades.push({
      enrollmentId,
      periodId,
      percent,
      blockedBy: [],
      calculatedAt: new Date(takenOver),
    });
  }
  postGrades(district, sections, percents, random);
  const rows = groupBySection(district);
  const rock: DrawnRock = { sections, named, enrollmentsOf: ({ id }) => rows.get(id) ?? [] };
  explainFailing(district, rock);
  postByHand(district, rock, random);
  return rock;
}

const takenOver = '2025-12-20T09:00:00Z';

/** Every department but Music says which scale it uses; the school as a whole does not. */
function placeScaleByDepartment({ scalePlacements }: District): void {
  const at = scalePlacements.findIndex(({ kind, schoolId }) => kind === 'school' && schoolId === spindleRock.id);
  const [place] = scalePlacements.splice(at, 1);
  const departments = [...new Set(taught.map(({ department }) => department))].filter((name) => name !== 'Music');
  for (const department of departments) {
    const id = Math.max(...scalePlacements.map((each) => each.id!)) + 1;
    scalePlacements.push({ ...place!, id, kind: 'department', department });
  }
}

interface RockPeople {
  readonly teachers: readonly number[];
  readonly students: readonly DrawnStudent[];
}

/** People whose names nobody else of the district bears. */
function drawPeople(district: District, random: Random): RockPeople {
  const taken = new Set(district.people.map(({ givenName, familyName }) => `${givenName} ${familyName}`));
  const names = random.shuffle(
    givenNames.flatMap((given) =>
      familyNames.filter((family) => !taken.has(`${given} ${family}`)).map((family) => [given, family] as const),
    ),
  );
  const add = (kind: 'student' | 'staff', yearGroup: string | null, birthDate: string | null) => {
    const [givenName, familyName] = names.pop()!;
    const id = Math.max(...district.people.map((person) => person.id!)) + 1;
    district.people.push({
      id,
      sourcedId: `${kind === 'student' ? 'S' : 'T'}${String(10_000 + id * 7)}`,
      isMadeHere: false,
      kind,
      schoolId: spindleRock.id,
      givenName,
      familyName,
      pronoun: kind === 'student' ? pronounOf(givenName, familyName) : null,
      preferredName: null,
      email: `${givenName}.${familyName}@port-elowen.example`.toLowerCase(),
      birthDate,
      yearGroup,
    });
    return id;
  };
  const teachers = Array.from({ length: spindleRock.teachers }, () => add('staff', null, null));
  const students = Array.from({ length: spindleRock.students }, (_each, at): DrawnStudent => {
    const yearGroup = String(6 + (at % 3));
    const day = `${String(random.whole(1, 12)).padStart(2, '0')}-${String(random.whole(1, 28)).padStart(2, '0')}`;
    const id = add('student', yearGroup, `${2019 - Number(yearGroup)}-${day}`);
    return { id, yearGroup, strength: random.bell() };
  });
  return { teachers, students };
}

/** In the first term Old Charts alone; the third section of Sea Weather has those who do best. */
function drawSections(district: District, { teachers, students }: RockPeople, periodId: number): SectionRow[] {
  const best = students.toSorted((a, b) => b.strength - a.strength);
  const period = spindleRock.periods.find(({ id }) => id === periodId)!;
  return taught.flatMap(({ title, sections }, courseIndex) => {
    if (periodId === firstTerm && title !== 'Old Charts') return [];
    // One course begins with other students than the next; those of the first term take it once.
    const from = (courseIndex * 11 + (periodId === firstTerm ? 20 : 0)) % students.length;
    const order = title === 'Sea Weather' ? best.toReversed() : [...students.slice(from), ...students.slice(0, from)];
    let taken = 0;
    return sections.map((size, at): SectionRow => {
      const id = district.sections.length + 1;
      const teacherId = teachers[(courseIndex + at) % teachers.length]!;
      const number = periodId === firstTerm ? 2 : at + 1;
      const section = { id, courseId: spindleRock.id * 1000 + courseIndex, number, teacherId, periodId, seats: null };
      district.sections.push(section);
      const isBest = title === 'Sea Weather' && at === 2;
      const own = isBest ? best.slice(0, size) : order.slice(taken, (taken += size));
      for (const student of own)
        district.enrollments.push({
          id: district.enrollments.length + 1,
          sectionId: id,
          studentId: student.id,
          enteredOn: period.startsOn,
          withdrawnOn: null,
        });
      return section;
    });
  });
}

/** The school asks for a comment with each grade that fails. */
function explainFailing({ reportItems, grades }: District, { sections, enrollmentsOf }: DrawnRock): void {
  const item = reportItems.find(({ id }) => id === items.termGrade)!;
  Object.assign(item, { commentRule: 'requiredBelow', commentBelow: 'D' });
  const own = new Set(sections.flatMap((section) => enrollmentsOf(section)).map(({ id }) => id));
  for (const grade of grades)
    if (own.has(grade.enrollmentId) && grade.label === 'F') grade.comment = 'Please come and talk to us.';
}

/** What teachers of workshops and of reading posted beside the grade. */
function postByHand(district: District, { sections, enrollmentsOf }: DrawnRock, random: Random): void {
  const { grades, courses } = district;
  const post = (section: SectionRow, itemId: number, enrollmentId: number, percent: string): void => {
    const label = labelOf(percent);
    const posted = { scaleVersionId: spindleRock.id, postedBy: section.teacherId, postedAt };
    grades.push({ ...bareGrade, ...posted, itemId, periodId: secondTerm, enrollmentId, percent, label });
  };
  for (const section of sections.filter(({ periodId }) => periodId === secondTerm)) {
    const { kind } = courses.find(({ id }) => id === section.courseId)!;
    for (const { id } of enrollmentsOf(section)) {
      if (kind === 'reading') post(section, items.readingAloud, id, String(5 * random.whole(12, 19)));
      if (kind !== 'workshop') continue;
      const term = grades.find(
        (grade) => grade.enrollmentId === id && grade.periodId === secondTerm && grade.itemId === items.termGrade,
      )!;
      const project = random.whole(58, 99);
      post(section, items.project, id, String(project));
      post(section, items.wholeWork, id, wholeWork(Number(term.percent), project));
    }
  }
}

/** Four parts of the term's grade and one of the project, which are whole numbers. */
export function wholeWork(term: number, project: number): string {
  const tenths = term * 8 + project * 2;
  return `${Math.floor(tenths / 10)}.${tenths % 10}`;
}

export function labelOf(percent: string): string {
  const precision = { digits: 1, rounding: roundHalfUp };
  return findBand(bandsOf(spindleRock), decimalOrThrow(percent), precision).band!.label;
}

const postedAt = '2026-01-08T14:20:00.000Z';
