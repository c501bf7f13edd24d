import { useEffect } from 'react';
import { useParams } from 'react-router';
import { PageFace } from '../../shell/awaited-page';
import { useScope } from '../../shell/scope';
import { GradeBook } from './grade-book';
import { useBook } from '../queries';

/** The grade book that the address names. */
export function GradeBookPage() {
  const sectionId = Number(useParams()['sectionId']);
  const { periodId } = useScope();
  const opened = useBook(sectionId, periodId);
  const { data: book } = opened;
  useEffect(() => {
    document.title = book ? `${book.section}, grade book · Wombat` : 'Wombat';
  }, [book]);
  return book ? <GradeBook key={`${sectionId}/${periodId}`} book={book} /> : <PageFace queries={[opened]} />;
}
