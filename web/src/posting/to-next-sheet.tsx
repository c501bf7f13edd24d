import { Navigate } from 'react-router';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { useSheets } from './queries';

/** Leads to the first sheet with blanks, or to the list when every sheet is done. */
export function ToNextSheet() {
  const { periodId, path } = useScope();
  const read = useSheets(periodId);
  const { data: lists } = read;
  if (!lists) return <PageFace queries={[read]} />;
  const [list] = lists;
  const next = list?.sheets.find(({ posted, expected }) => posted < expected);
  return (
    <Navigate to={path(list && next ? `grade-sheets/${next.sectionId}/${list.itemId}` : 'grade-sheets')} replace />
  );
}
