import { counted } from '#contract/messages';
import { UnsavedWords } from '../cell-tables/unsaved-words';
import { FigureButton, Strong } from '../ui/page';
import { useSearchParams } from 'react-router';

interface CoursesHeadlineProps {
  readonly schoolName: string;
  readonly courses: number;
  readonly departments: number;
  readonly changed: number;
  readonly faulty: number;
}

/** How many courses there are, and what of them is not saved. The figure of all of them ends every filter. */
export function CoursesHeadline({ schoolName, courses, departments, changed, faulty }: CoursesHeadlineProps) {
  const [, setSearch] = useSearchParams();
  return (
    <>
      {schoolName} offers <FigureButton onClick={() => setSearch({})}>{counted(courses, 'course')}</FigureButton> in{' '}
      <Strong>{counted(departments, 'department')}</Strong>
      <UnsavedWords changed={changed} faulty={faulty} />
    </>
  );
}
