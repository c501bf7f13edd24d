import { Link } from 'react-router';
import { useTimeLeft } from '../runs/use-time-left';
import { useScope } from '../shell/scope';
import { shareDone } from '../files/words';
import { useExchanges } from './queries';
import { workOfZip } from './words';

/** The zip that is being imported, in the top bar: how far it is, and the time left. */
export function RunningZip() {
  const { path } = useScope();
  const { data: zips, dataUpdatedAt: at } = useExchanges();
  const zip = zips?.find(({ status }) => status === 'accepting');
  const left = useTimeLeft({ ...workOfZip(zip), at });
  if (!zip) return null;
  return (
    <span role="status">
      <Link
        to={`${path('exchange')}?zip=${zip.id}`}
        className="text-[12px] whitespace-nowrap text-quiet hover:underline"
      >
        Importing {zip.fileName} <b className="figures">{shareDone(zip)}</b>
        {left !== null && <>, {left} left</>}
      </Link>
    </span>
  );
}
