import type { District } from './district.js';
import type { DrawnPeople, DrawnStudent } from './draw-people.js';
import type { Random } from './random.js';
import type { CoursePlan, SchoolPlan } from './school-plan.js';
import { college, demoNow, primary, upper } from './schools.js';

/** Puts students into sections: who takes which course, with whom, under whom. */
export function drawSections(district: District, people: DrawnPeople, random: Random): void {
  const draft: SectionDraft[] = [
    ...yearSections(upper, people.students.get(1)!, 21, random),
    ...halfYearSections(people.students.get(1)!, random),
    ...classSections(people.students.get(2)!, random),
    ...termSections(people.students.get(3)!, random),
  ];
  const numbers = new Map<string, number>();
  for (const { school, courseIndex, periodId, students } of draft) {
    const courseId = school.id * 1000 + courseIndex;
    const number = (numbers.get(`${courseId}`) ?? 0) + 1;
    numbers.set(`${courseId}`, number);
    const teachers = people.teachers.get(school.id)!;
    const sectionId = district.sections.length + 1;
    const teacherId = teachers[(sectionId * 5 + courseIndex) % teachers.length]!;
    district.sections.push({ id: sectionId, courseId, number, teacherId, periodId, seats: null });
    const { startsOn } = school.periods.find(({ id }) => id === periodId)!;
    for (const student of students) {
      district.enrollments.push({
        id: district.enrollments.length + 1,
        sectionId,
        studentId: student.id,
        enteredOn: startsOn,
        withdrawnOn: random.chance(0.012) ? withdrawalDay(startsOn, random) : null,
      });
    }
  }
}

interface SectionDraft {
  readonly school: SchoolPlan;
  readonly courseIndex: number;
  readonly periodId: number;
  readonly students: readonly DrawnStudent[];
}

/** One course of each department for everybody's year; the stronger ones more often in the honours class. */
function yearSections(
  school: SchoolPlan,
  students: readonly DrawnStudent[],
  size: number,
  random: Random,
): SectionDraft[] {
  const takers = new Map<number, DrawnStudent[]>();
  for (const student of students) {
    const own = school.courses.filter(({ yearGroup }) => yearGroup === student.yearGroup);
    for (const regular of own.filter(({ level }) => level === 'regular')) {
      const honours = own.find(({ title }) => title === `${regular.title}, honours`);
      const taken = honours && student.strength + random.bell() > 0.8 ? honours : regular;
      add(takers, school.courses.indexOf(taken), student);
    }
  }
  return [...takers].flatMap(([courseIndex, all]) =>
    split(all, size, random).map((group) => ({ school, courseIndex, periodId: 1, students: group })),
  );
}

/** One half-year course for everybody in each semester. */
function halfYearSections(students: readonly DrawnStudent[], random: Random): SectionDraft[] {
  const choices = courseIndexes(upper, ({ length }) => length === 'semester');
  return [2, 5].flatMap((periodId) => {
    const takers = new Map<number, DrawnStudent[]>();
    random.shuffle(students).forEach((student, index) => add(takers, choices[index % choices.length]!, student));
    return [...takers].flatMap(([courseIndex, all]) =>
      split(all, 47, random).map((group) => ({ school: upper, courseIndex, periodId, students: group })),
    );
  });
}

/** A primary class stays together in every course of its year. */
function classSections(students: readonly DrawnStudent[], random: Random): SectionDraft[] {
  return ['1', '2', '3', '4', '5'].flatMap((year) => {
    const classes = split(
      students.filter(({ yearGroup }) => yearGroup === year),
      22,
      random,
    );
    return courseIndexes(primary, ({ yearGroup }) => yearGroup === year).flatMap((courseIndex) =>
      classes.map((group) => ({ school: primary, courseIndex, periodId: 11, students: group })),
    );
  });
}

/** Three courses in the evening for everybody, in each term that has begun. */
function termSections(students: readonly DrawnStudent[], random: Random): SectionDraft[] {
  const choices = courseIndexes(college, () => true);
  return [22, 23].flatMap((periodId) => {
    const takers = new Map<number, DrawnStudent[]>();
    for (const student of students)
      for (const choice of random.shuffle(choices).slice(0, 3)) add(takers, choice, student);
    return [...takers].flatMap(([courseIndex, all]) =>
      split(all, 40, random).map((group) => ({ school: college, courseIndex, periodId, students: group })),
    );
  });
}

function courseIndexes(school: SchoolPlan, wanted: (course: CoursePlan) => boolean): number[] {
  return school.courses.flatMap((course, index) => (wanted(course) ? [index] : []));
}

function add(takers: Map<number, DrawnStudent[]>, courseIndex: number, student: DrawnStudent): void {
  takers.set(courseIndex, [...(takers.get(courseIndex) ?? []), student]);
}

/** Groups as even as can be, none above `size`. */
function split(all: readonly DrawnStudent[], size: number, random: Random): DrawnStudent[][] {
  const groups: DrawnStudent[][] = Array.from({ length: Math.ceil(all.length / size) }, () => []);
  random.shuffle(all).forEach((student, index) => groups[index % groups.length]!.push(student));
  return groups;
}

/** A day some weeks after the start; nobody has withdrawn yet on a day that is still to come. */
function withdrawalDay(startsOn: string, random: Random): string | null {
  const day = new Date(`${startsOn}T00:00:00Z`);
  day.setUTCDate(day.getUTCDate() + random.whole(10, 125));
  const text = day.toISOString().slice(0, 10);
  return text < demoNow.slice(0, 10) ? text : null;
}
