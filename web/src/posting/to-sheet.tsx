import { Navigate, useParams } from 'react-router';
import { NoPage } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';

/** Leads to a section's sheet of what is posted in the period. */
export function ToSheet() {
  const { sectionId } = useParams();
  const { path } = useScope();
  const { period } = usePeriod();
  if (!period) return null;
  if (!period.posting) return <NoPage says={`Nothing is posted in ${period.name}.`} />;
  return <Navigate to={path(`grade-sheets/${sectionId}/${period.posting.itemId}`)} replace />;
}
