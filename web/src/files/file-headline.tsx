import { countOutcomes, isFileUnderWay, isLeftOut } from '#core/files';
import type { FileImportReply } from '#contract/files';
import { agreeing, counted, listed } from '#contract/messages';
import { useScope } from '../shell/scope';
import { showCount } from '../ui/format';
import { Figure, Strong } from '../ui/page';
import { useTimeLeft } from '../runs/use-time-left';
import { fileWorkWords, shareDone, workOfFile, writesOf } from './words';

interface FileHeadlineProps {
  readonly file: FileImportReply;
  readonly sectionName: string | undefined;
  /** When the file was told, in milliseconds. */
  readonly at: number;
}

/** How the file stands, in one sentence. */
export function FileHeadline({ file, sectionName, at }: FileHeadlineProps) {
  if (isFileUnderWay(file.status)) return <WorkHeadline file={file} at={at} />;
  if (file.status === 'refused') return <>This file cannot be imported; nothing of it was.</>;
  if (file.status === 'undone') return <>This file was undone; none of its values count any more.</>;
  if (file.asksSheet) return <>Choose the sheet of {file.fileName} that holds the grades.</>;
  if (file.plan) return <PlanHeadline file={file} sectionName={sectionName} />;
  return file.status === 'accepted' ? (
    <>
      This file is imported for <Strong>{file.periodName}</Strong>.
    </>
  ) : (
    <>
      Say what the columns mean, and for which section of <Strong>{file.periodName}</Strong> the file is.
    </>
  );
}

function WorkHeadline({ file, at }: Pick<FileHeadlineProps, 'file' | 'at'>) {
  const left = useTimeLeft({ ...workOfFile(file), at });
  const share = shareDone(file);
  return (
    <>
      {fileWorkWords[file.status]} <Strong>{file.fileName}</Strong>
      {share && <>: {share}</>}
      {left !== null && <>, {left} left</>}.
    </>
  );
}

function PlanHeadline({ file, sectionName }: Omit<FileHeadlineProps, 'at'>) {
  const { path } = useScope();
  const { counts } = file.plan!;
  const leftOut = countOutcomes(file.plan!, isLeftOut);
  const asInFile = counts.same + writesOf(file.plan);
  const where = file.sectionColumn !== null ? file.periodName : (sectionName ?? 'the section');
  const items = file.items.filter(({ id }) => file.grades.some(({ itemId }) => itemId === id));
  return (
    <>
      {file.status === 'accepted' ? (
        <>
          Imported for <Strong>{where}</Strong>: <Strong>{counted(asInFile, 'percent')}</Strong>{' '}
          {agreeing(asInFile, 'is')} as in the file
        </>
      ) : (
        <>
          For <Strong>{where}</Strong> this file brings percentages of {listed(items.map(({ name }) => name))}:{' '}
          <Strong>{showCount(counts.new)} new</Strong> and <Strong>{showCount(counts.changed)} changed</Strong>
        </>
      )}
      {leftOut > 0 ? (
        <>
          ;{' '}
          <Figure tone="blocks" to={`${path(`files/${file.id}`)}?show=left-out`}>
            {counted(leftOut, 'value')}
          </Figure>{' '}
          {agreeing(leftOut, 'is')} skipped, each with its reason.
        </>
      ) : (
        '.'
      )}
    </>
  );
}
