import type { PlatformContent, PlatformHabits } from '#standins';
import type { District, SectionRow } from './district.js';
import { openPeriodId, type Demo } from './make-district.js';
import { platformWork } from './platform-work.js';
import { createRandom, type Random } from './random.js';
import type { SchoolPlan } from './school-plan.js';
import { college, upper } from './schools.js';

/** The two practice platforms and how each answers. */
export const quillpond: PlatformHabits = {
  name: 'Quillpond',
  clientId: 'wombat',
  clientSecret: 'reed-and-ink',
  pageSize: 100,
  tellsTotal: true,
  tokenSeconds: 3600,
};
export const fernway: PlatformHabits = {
  name: 'Fernway',
  clientId: 'wombat',
  clientSecret: 'spore-and-shade',
  pageSize: 20,
  tellsTotal: false,
  tokenSeconds: 900,
};

export const quillpondSections = 120;
/** Of the college, in which the demo begins. */
export const winterTermId = 23;

/** What the teachers of a department call the four categories of the upper school, and how they weigh them. */
const groupHabits: Readonly<Record<string, readonly (readonly [title: string, weight: number])[]>> = {
  'Sea and Shore': [['Class Work', 30], ['Homework', 10], ['Quizzes', 20], ['Tests', 40]], // prettier-ignore
  'Numbers and Charts': [['CW', 25], ['HW', 15], ['Quiz', 20], ['Test', 40]], // prettier-ignore
  Letters: [['In class', 30], ['Homework', 10], ['Short quizzes', 20], ['Tests & essays', 40]], // prettier-ignore
  'Island and World': [['classwork', 30], ['Home-work', 10], ['Quizes', 20], ['Exams', 40]], // prettier-ignore
  'Craft and Workshop': [['Workshop', 30], ['HW', 10], ['Quizzes', 20], ['Practical tests', 40]], // prettier-ignore
};
const fernwayGroups = [['Assign.', null], ['Quiz', null], ['Tests & Exams', null]] as const; // prettier-ignore

const totalLabels = ['Overall', 'Course total', 'Overall', 'Quarter grade'];

/** The upper school's platform: weights, percents, the school's numbers for most people, and three classes too many. */
export function quillpondContent(demo: Demo): PlatformContent {
  const { district } = demo;
  const random = createRandom(120);
  const sections = sectionsOf(district, upper).slice(0, quillpondSections);
  const content = contentOf(demo, upper, openPeriodId, sections, random, ({ course, section }) => ({
    title: `${course.title} (${section.number})`,
    code: null,
    term: '2025-26',
    groups: groupHabits[course.department] ?? groupHabits['Sea and Shore']!,
    total: totalLabels[section.id % totalLabels.length]!,
  }));
  const [first] = content.classes;
  const copied = content.members.filter(({ classId }) => classId === first!.id);
  return {
    ...content,
    classes: [
      ...content.classes,
      { ...first!, id: 'q-copy', title: `${first!.title} copy` },
      { id: 'q-staff', title: 'Staff room', code: null, term: '2025-26' },
    ],
    members: [...content.members, ...copied.map(({ personId }) => ({ classId: 'q-copy', personId }))],
    groups: [...content.groups, ...oddGroups(content.classes)],
  };
}

/** The college's platform: letters instead of percents, no weights, short pages. */
export function fernwayContent(demo: Demo): PlatformContent {
  const { district } = demo;
  const random = createRandom(49);
  const winter = sectionsOf(district, college).filter(({ periodId }) => periodId === winterTermId);
  const content = contentOf(demo, college, winterTermId, winter, random, ({ course, section }) => ({
    title: course.title,
    code: `${course.code}-${section.number}`,
    term: 'Winter',
    groups: fernwayGroups,
    total: 'Final letter',
  }));
  const letters = college.scale.bands.map(([letter, lowest]) => ({ letter: letter === 'F' ? 'E' : letter, lowest }));
  return { ...content, letters };
}

interface ClassHabit {
  readonly title: string;
  readonly code: string | null;
  readonly term: string;
  readonly groups: readonly (readonly [title: string, weight: number | null])[];
  readonly total: string;
}

type Course = District['courses'][number];

function sectionsOf(district: District, { id }: SchoolPlan): SectionRow[] {
  const own = new Set(district.courses.filter(({ schoolId }) => schoolId === id).map((course) => course.id));
  return district.sections.filter(({ courseId }) => own.has(courseId));
}

function contentOf(
  demo: Demo,
  plan: SchoolPlan,
  periodId: number,
  sections: readonly SectionRow[],
  random: Random,
  habitOf: (each: { readonly course: Course; readonly section: SectionRow }) => ClassHabit,
): PlatformContent {
  const { district } = demo;
  const courses = new Map(district.courses.map((course) => [course.id, course]));
  const classes = sections.map((section) => {
    const habit = habitOf({ course: courses.get(section.courseId)!, section });
    return { id: `c${section.id}`, section, habit };
  });
  const running = new Set(sections.map(({ id }) => id));
  const enrollments = district.enrollments.filter(
    ({ sectionId, withdrawnOn }) => running.has(sectionId) && withdrawnOn === null,
  );
  const inClasses = new Set(enrollments.map(({ studentId }) => studentId));
  const groups = classes.flatMap(({ id, habit }) =>
    habit.groups.map(([title, weight], at) => ({ id: `${id}-g${at}`, classId: id, title, weight })),
  );
  const members = enrollments.map(({ sectionId, studentId }) => ({
    classId: `c${sectionId}`,
    personId: `p${studentId}`,
  }));
  return {
    classes: classes.map(({ id, habit: { title, code, term } }) => ({ id, title, code, term })),
    people: district.people.filter(({ id }) => inClasses.has(id!)).map((person) => personOf(person, random)),
    members,
    groups,
    ...platformWork(demo, plan, periodId, classes, random),
    letters: [],
  };
}

/** Most carry the school's number, some only an address, a few neither. */
function personOf(person: District['people'][number], random: Random): PlatformContent['people'][number] {
  const { givenName, familyName } = person;
  const hasNumber = random.chance(0.94);
  const hasEmail = hasNumber || random.chance(0.8);
  return {
    id: `p${person.id}`,
    identifier: hasNumber ? person.sourcedId : null,
    email: hasEmail ? person.email : null,
    givenName,
    familyName,
    birthDate: person.birthDate ?? null,
  };
}

/** Names that no rule settles: a slip of the pen, one that means two of ours, one that counts for nothing. */
function oddGroups(classes: PlatformContent['classes']): PlatformContent['groups'] {
  const odd = ['Homwork', 'Quizzes & Tests', 'Odds and ends'];
  return odd.flatMap((title, at) =>
    classes
      .filter((_each, index) => index % 40 === 7 + at * 9)
      .map(({ id }) => ({ id: `${id}-odd${at}`, classId: id, title, weight: null })),
  );
}
