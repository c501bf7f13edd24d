import { useParams } from 'react-router';
import { NoPage, PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { useStandards } from './queries';
import { StandardsSheet } from './standards-sheet';

/** The standards of a section in one sheet. */
export function StandardsPage() {
  const sectionId = Number(useParams()['sectionId']);
  const { periodId } = useScope();
  const { period } = usePeriod();
  const read = useStandards(sectionId, periodId);
  if (!read.data || !period) return <PageFace queries={[read]} />;
  if (read.data.sheets.length === 0) return <NoPage says={`This section reports no standard in ${period.name}.`} />;
  return (
    <StandardsSheet
      key={`${sectionId}/${periodId}`}
      sheets={read.data.sheets}
      sectionId={sectionId}
      periodId={periodId}
    />
  );
}
