import { shareDone } from '../files/words';
import { RunningLink } from '../runs/running-link';
import { useScope } from '../shell/scope';
import { useExchanges } from './queries';
import { workOfZip } from './words';

/** The zip that is being imported, in the top bar. */
export function RunningZip() {
  const { path } = useScope();
  const { data: zips, dataUpdatedAt: at } = useExchanges();
  const zip = zips?.find(({ status }) => status === 'accepting');
  if (!zip) return null;
  return (
    <RunningLink to={`${path('exchange')}?zip=${zip.id}`} watched={{ ...workOfZip(zip), at }}>
      Importing {zip.fileName} <b className="figures">{shareDone(zip)}</b>
    </RunningLink>
  );
}
