import { useSearchParams } from 'react-router';
import type { ItemRulesBody, CoveredCourseReply, ReportItemsReply } from '#contract/report-items';
import { agreeing, counted } from '#contract/messages';
import { searchWith } from '../ui/address/search-with';
import { FigureButton, Strong } from '../ui/page';

/** What all courses report, by what; each figure filters the table below. */
export function ItemsHeadline({ reply, assignment }: { reply: ReportItemsReply; assignment: ItemRulesBody }) {
  const [, setSearch] = useSearchParams();
  const show = (value: string | null) =>
    setSearch((before) => searchWith(before, { show: value, without: null, course: null }));
  const lacking = reply.courses.filter((course) => lacksTranscript(course, reply)).length;
  const { items, courses } = reply;
  if (items.length === 0) return <>No report item yet: a report card has nothing to show.</>;
  return (
    <>
      <FigureButton onClick={() => show(null)}>{counted(courses.length, 'course')}</FigureButton>{' '}
      {agreeing(courses.length, 'reports')} <Strong>{counted(items.length, 'item')}</Strong> by{' '}
      <Strong>{counted(assignment.rules.length, 'rule')}</Strong> and{' '}
      <FigureButton tone="warns" onClick={() => show('exceptions')}>
        {counted(assignment.exceptions.length, 'exception')}
      </FigureButton>
      {lacking === 0 ? (
        '; none on transcripts is without an item for them.'
      ) : (
        <>
          ;{' '}
          <FigureButton tone="blocks" onClick={() => show('lacking')}>
            {counted(lacking, 'course')}
          </FigureButton>{' '}
          {agreeing(lacking, 'has')} nothing for the transcript.
        </>
      )}
    </>
  );
}

/** The filter that the address asks for. */
export function filterOf(search: URLSearchParams, reply: ReportItemsReply): (course: CoveredCourseReply) => boolean {
  const course = Number(search.get('course'));
  if (course) return ({ id }) => id === course;
  const without = Number(search.get('without'));
  if (without) return ({ covers }) => !covers.some(({ itemId, reports }) => itemId === without && reports);
  switch (search.get('show')) {
    case 'lacking':
      return (each) => lacksTranscript(each, reply);
    case 'exceptions':
      return ({ covers }) => covers.some(({ kind }) => kind === 'exception');
    default:
      return () => true;
  }
}

function lacksTranscript({ onTranscript, covers }: CoveredCourseReply, { items }: ReportItemsReply): boolean {
  return (
    onTranscript &&
    !covers.some(({ itemId, reports }) => reports && items.find(({ id }) => id === itemId)?.onTranscript)
  );
}
