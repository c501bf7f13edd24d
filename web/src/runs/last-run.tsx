import { counted } from '#contract/messages';
import { Link } from 'react-router';
import { useScope } from '../shell/scope';
import { useMay } from '../shell/access';
import { useLastRun } from './run-queries';
import { sayAge } from './run-words';

/** How old what came from a platform is, and what of it did not come; nothing where no run ever carried the section over. */
export function LastRun({ sectionId }: { sectionId: number }) {
  const { periodId, path } = useScope();
  const { data: last } = useLastRun(sectionId, periodId);
  const may = useMay();
  if (!last) return null;
  const outcome = `${counted(last.written, 'row')} written, ${last.notSent === 0 ? 'all sent' : `${last.notSent} not sent`}`;
  return (
    <span>
      {last.platform} was read {sayAge(last.minutesAgo)}:{' '}
      {may('read-map') ? (
        <Link className="text-estuary underline" to={path(`runs/${last.runId}`)}>
          {outcome}
        </Link>
      ) : (
        outcome
      )}
    </span>
  );
}
