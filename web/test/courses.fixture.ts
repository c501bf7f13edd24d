import type { CourseCells } from '#core/courses';
import type { CourseReply } from '#contract/courses';

/** A course of the craft department that leaves what it can to its school. */
export const cellsOf = (code: string, over: Partial<CourseCells> = {}): CourseCells => ({
  code,
  title: `Course ${code}`,
  department: 'Craft',
  kind: '',
  level: 'regular',
  length: 'year',
  credits: '',
  mostCredits: '',
  onTranscript: '',
  countsInGpa: '',
  allowsExempt: '',
  ...over,
});

const inherited = { text: '1', from: 'school' } as const;

export const courseOf = (id: number, cells: CourseCells): CourseReply => ({
  id,
  revision: `r${id}`,
  cells,
  scale: null,
  sections: 2,
  grades: 0,
  inherited: {
    credits: inherited,
    mostCredits: inherited,
    onTranscript: inherited,
    countsInGpa: inherited,
    allowsExempt: inherited,
  },
});
