import { isFileUnderWay } from '#core/files';
import { RunningLink } from '../runs/running-link';
import { useScope } from '../shell/scope';
import { useFiles } from './queries';
import { fileWorkWords, shareDone, workOfFile } from './words';

/** The file under way in the top bar: what is done with it. */
export function RunningFile() {
  const { periodId, path } = useScope();
  const { data: files, dataUpdatedAt: at } = useFiles(periodId);
  const file = files?.find(({ status }) => isFileUnderWay(status));
  if (!file) return null;
  return (
    <RunningLink to={path(`files/${file.id}`)} watched={{ ...workOfFile(file), at }}>
      {fileWorkWords[file.status]} {file.fileName} <b className="figures">{shareDone(file)}</b>
    </RunningLink>
  );
}
