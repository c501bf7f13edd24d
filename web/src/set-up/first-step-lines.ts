import { firstSteps, type FirstStepPlace, type SetUpCounts } from '#core/set-up';
import { counted } from '#contract/messages';
import type { WayLine } from '../today/way-lines';

type Words = Pick<WayLine, 'note' | 'act'> & { readonly name: string; readonly says: (counts: SetUpCounts) => string };

const words: Readonly<Record<FirstStepPlace, Words>> = {
  people: {
    name: 'People',
    says: ({ students, staff }) => `${counted(students, 'student')} and ${counted(staff, 'teacher')} are here`,
    note: 'Students with their numbers, and who teaches: typed, pasted, or from a CSV or XLSX file.',
    act: 'People',
  },
  courses: {
    name: 'Courses',
    says: ({ courses }) => `${counted(courses, 'course')} offered`,
    note: 'Code, title and department; credits where a transcript needs them.',
    act: 'Courses',
  },
  sections: {
    name: 'Sections',
    says: ({ sections }) => `${counted(sections, 'section')} this year`,
    note: 'Which groups take a course, who teaches each, and when it runs.',
    act: 'Sections',
  },
  enrollments: {
    name: 'Enrollments',
    says: ({ enrollments }) => `${counted(enrollments, 'seat')} in sections`,
    note: 'Who sits in which section: paste the numbers of a whole class at once.',
    act: 'Enrollments',
  },
  scales: {
    name: 'Scales',
    says: ({ scales }) => `${counted(scales, 'scale')} here`,
    note: 'Which percentage is which label; items, or places such as the whole school, use it.',
    act: 'Scales',
  },
  'report-items': {
    name: 'Report items',
    says: ({ items, rules }) => `${counted(items, 'item')} reported by ${counted(rules, 'rule')}`,
    note: 'What a report card shows, such as a quarter grade, and the rule that says which courses report it.',
    act: 'Report items',
  },
  'grade-sheets': {
    name: 'First grade',
    says: () => 'No grade is posted yet',
    note: 'Open a grade sheet and type the first one.',
    act: 'Grade sheets',
  },
};

export interface FirstStepLine extends WayLine {
  readonly name: string;
}

/** The first steps of a school in words; none once it is under way. */
export function firstStepLines(counts: SetUpCounts): readonly FirstStepLine[] {
  return firstSteps(counts).map(({ place, isDone }) => {
    const { says, ...own } = words[place];
    return { ...own, says: says(counts), path: place, isDone };
  });
}
