import { useEffect } from 'react';
import { useParams } from 'react-router';
import { ProblemError } from '../shell/api';
import { useScope } from '../shell/scope';
import { Page } from '../ui/page';
import { Empty } from '../ui/panel';
import { GradeBook } from './grade-book';
import { useBook } from './queries';

/** The grade book that the address names. */
export function GradeBookPage() {
  const sectionId = Number(useParams()['sectionId']);
  const { periodId } = useScope();
  const { data: book, error } = useBook(sectionId, periodId);
  useEffect(() => {
    document.title = book ? `${book.section}, grade book · Wombat` : 'Wombat';
  }, [book]);
  if (error instanceof ProblemError) {
    return (
      <Page headline="This grade book cannot be opened.">
        <Empty title={error.problem.title}>
          {error.problem.detail} It may run in another school or period than the one chosen above.
        </Empty>
      </Page>
    );
  }
  return book ? <GradeBook key={`${sectionId}/${periodId}`} book={book} /> : null;
}
