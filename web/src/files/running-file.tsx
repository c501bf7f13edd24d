import { Link } from 'react-router';
import { isFileUnderWay } from '#core/files';
import { useScope } from '../shell/scope';
import { useFiles } from './queries';
import { useTimeLeft } from '../runs/use-time-left';
import { fileWorkWords, shareDone, workOfFile } from './words';

/** The file under way in the top bar: what is done with it, how far it is, and the time left. */
export function RunningFile() {
  const { periodId, path } = useScope();
  const { data: files, dataUpdatedAt: at } = useFiles(periodId);
  const file = files?.find(({ status }) => isFileUnderWay(status));
  const left = useTimeLeft({ ...workOfFile(file), at });
  if (!file) return null;
  return (
    <span role="status">
      <Link to={path(`files/${file.id}`)} className="text-[12px] whitespace-nowrap text-quiet hover:underline">
        {fileWorkWords[file.status]} {file.fileName} <b className="figures">{shareDone(file)}</b>
        {left !== null && <>, {left} left</>}
      </Link>
    </span>
  );
}
