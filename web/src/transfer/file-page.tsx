import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import type { ChooseColumnsRequest, FileImportReply } from '#contract/transfer';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { useSheets } from '../posting/queries';
import { Button, Key } from '../ui/button';
import { plural, showCount, showInstant } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { ColumnChooser } from './column-chooser';
import { PreviewLedger } from './preview-ledger';
import { useFile, useFileActions } from './queries';

/** One file: what its columns mean, what every row would do, and the decision. */
export function FilePage() {
  const fileId = Number(useParams()['fileId']);
  const { periodId, path } = useScope();
  const { data: file } = useFile(fileId);
  const { data: lists } = useSheets(periodId);
  const { choose, accept, undo, discard } = useFileActions(fileId);
  const navigate = useNavigate();
  const preview = file?.preview;
  const writes = preview ? preview.counts.new + preview.counts.changed : 0;
  const canAccept = file?.status === 'read' && preview != null && writes > 0 && !accept.isPending;

  const takeBack = () =>
    undo.mutate(undefined, {
      onSuccess: () => toast.success('The file is taken back; what was computed before stands again.'),
      onError: showProblem,
    });
  const takeIn = () => {
    if (!canAccept) return;
    accept.mutate(preview.previewId, {
      onSuccess: () =>
        toast.success(`${plural(writes, 'computed percent')} written.`, {
          action: { label: 'Undo', onClick: takeBack },
        }),
      onError: showProblem,
    });
  };
  useKeys([{ key: 'Ctrl+Enter', says: 'accept the file', inFields: true, act: takeIn }]);
  if (!file || !lists) return null;

  const sections = lists[0]?.sheets ?? [];
  const section = sections.find(({ sectionId }) => sectionId === file.sectionId);
  const onChoose = (change: Partial<ChooseColumnsRequest>) => {
    const { idColumn, gradeColumn, sectionId } = {
      idColumn: file.idColumn,
      gradeColumn: file.gradeColumn,
      sectionId: file.sectionId,
      ...change,
    };
    choose.mutate({ idColumn, gradeColumn, sectionId }, { onError: showProblem });
  };
  return (
    <Page
      headline={<FileHeadline file={file} writes={writes} sectionName={section?.section} />}
      actions={
        file.status === 'read' ? (
          <>
            <Button look="main" disabled={!canAccept} onClick={takeIn}>
              Accept {writes > 0 ? plural(writes, 'row') : ''} <Key>Ctrl ↵</Key>
            </Button>
            <Button
              onClick={() =>
                discard.mutate(undefined, { onSuccess: () => void navigate(path('files')), onError: showProblem })
              }
            >
              Discard the file
            </Button>
          </>
        ) : (
          <>
            {section && (
              <Button
                look="main"
                onClick={() => void navigate(path(`grade-sheets/${section.sectionId}/${lists[0]!.itemId}`))}
              >
                Open the grade sheet
              </Button>
            )}
            <Button disabled={file.status !== 'accepted'} onClick={takeBack}>
              Take the file back
            </Button>
          </>
        )
      }
      aside={`${file.fileName}${file.encoding ? ` · ${file.encoding}` : ''} · read ${showInstant(file.readAt)} by ${file.readBy}`}
    >
      {file.status === 'read' && <ColumnChooser file={file} sections={sections} onChoose={onChoose} />}
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        {preview ? (
          <PreviewLedger preview={preview} />
        ) : (
          <Empty title="Choose what the columns mean">
            {file.sectionId === null && file.status !== 'read'
              ? 'This file held several sections; its rows stand in the grade sheets.'
              : 'As soon as the id column, the grade column and the section are chosen, every row shows here what it would do.'}
          </Empty>
        )}
      </Panel>
    </Page>
  );
}

function FileHeadline({
  file,
  writes,
  sectionName,
}: {
  file: FileImportReply;
  writes: number;
  sectionName: string | undefined;
}) {
  const { path } = useScope();
  if (file.status === 'undone') return <>This file is taken back; nothing of it stands any more.</>;
  if (!file.preview) {
    return file.status === 'accepted' ? (
      <>
        This file is taken in for <Strong>{file.periodName}</Strong>.
      </>
    ) : (
      <>
        Say what the columns mean, and for which section of <Strong>{file.periodName}</Strong> the file is.
      </>
    );
  }
  const { counts } = file.preview;
  const wrong =
    counts.unknown +
    counts['not in section'] +
    counts.withdrawn +
    counts['out of range'] +
    counts.unreadable +
    counts.twice;
  return (
    <>
      {file.status === 'accepted' ? (
        <>
          Taken in for <Strong>{sectionName ?? file.periodName}</Strong>:{' '}
          <Strong>{showCount(counts.same + writes)}</Strong> percents stand as in the file
        </>
      ) : (
        <>
          For <Strong>{sectionName ?? 'the section'}</Strong> this file brings{' '}
          <Strong>{showCount(counts.new)} new</Strong> and <Strong>{showCount(counts.changed)} changed</Strong> percents
          of {file.itemName}
        </>
      )}
      {wrong > 0 ? (
        <>
          ;{' '}
          <Figure tone="blocks" to={`${path(`files/${file.id}`)}?show=left-out`}>
            {plural(wrong, 'row')}
          </Figure>{' '}
          {wrong === 1 ? 'is' : 'are'} left out, each with its reason.
        </>
      ) : (
        '.'
      )}
    </>
  );
}
