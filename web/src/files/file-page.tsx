import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { canDiscardFile, isFileUnderWay } from '#core/files';
import type { ChooseColumnsRequest, FileImportReply } from '#contract/files';
import { counted } from '#contract/messages';
import { useSheets } from '../posting/queries';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { showInstant } from '../ui/format';
import { HistoryButton } from '../changes/history-button';
import { Page } from '../ui/page';
import { Empty, Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { ColumnChooser } from './column-chooser';
import { FileHeadline } from './file-headline';
import { FileLedger } from './file-ledger';
import { useFile, useFileActions, useIsChoosing } from './queries';
import { UnknownSections } from './unknown-sections';
import { writesOf } from './words';

/** One file: what its columns mean, what every row would do, and the decision. */
export function FilePage() {
  const opened = useFile(Number(useParams()['fileId']));
  const { data: file, dataUpdatedAt } = opened;
  const { periodId } = useScope();
  const sheets = useSheets(periodId);
  const { data: lists } = sheets;
  const { choose, readAgain } = useFileActions(file?.id ?? 0);
  if (!file || !lists) return <PageFace queries={[opened, sheets]} />;

  const sections = lists[0]?.sheets ?? [];
  const isOpen = file.status === 'read' || file.status === 'planned';
  const onChoose = (change: Partial<ChooseColumnsRequest>) => {
    const { idColumn, sectionId, sectionColumn, grades, namedSections } = file;
    const kept = { idColumn, sectionId, sectionColumn, grades: [...grades], namedSections };
    choose.mutate({ ...kept, ...change }, { onError: showProblem });
  };
  return (
    <Page
      headline={
        <FileHeadline
          file={file}
          sectionName={sections.find(({ sectionId }) => sectionId === file.sectionId)?.section}
          at={dataUpdatedAt}
        />
      }
      actions={
        <>
          <FileActions file={file} />
          <HistoryButton thing={`file ${file.id}`} called={file.fileName} />
        </>
      }
      aside={`${file.fileName} · ${file.encoding} · read ${showInstant(file.readAt)} by ${file.readBy}`}
    >
      {file.problem && (
        <div role="alert">
          <Note tone="blocks" title={file.problem.title}>
            <p>{file.problem.detail}</p>
          </Note>
        </div>
      )}
      {isOpen && (
        <ColumnChooser
          file={file}
          sections={sections}
          onChoose={onChoose}
          onReadAgain={(request) => readAgain.mutate(request, { onError: showProblem })}
        />
      )}
      {isOpen && (
        <UnknownSections file={file} sections={sections} onChoose={(namedSections) => onChoose({ namedSections })} />
      )}
      <Panel className="flex min-h-[260px] flex-1 flex-col">
        {file.plan ? <FileLedger file={file} plan={file.plan} /> : <NoPlan file={file} />}
      </Panel>
    </Page>
  );
}

function NoPlan({ file }: { file: FileImportReply }) {
  if (isFileUnderWay(file.status))
    return (
      <Empty title="At work">
        The rows show here as soon as all of them are planned. You can leave this page; the work goes on, also when the
        server is started again.
      </Empty>
    );
  if (file.status === 'refused')
    return <Empty title="Nothing was imported">Fix the source file and upload it again.</Empty>;
  if (file.asksSheet)
    return (
      <Empty title="Which sheet?">
        The workbook has several sheets that can be seen. Choose the one with the grades; what its columns mean is
        proposed then.
      </Empty>
    );
  return (
    <Empty title="Choose what the columns mean">
      As soon as the id column, a grade column and the section are chosen, every row shows here what it would do.
    </Empty>
  );
}

/** What can be done with the file as it stands; the main thing first. */
function FileActions({ file }: { file: FileImportReply }) {
  const { path } = useScope();
  const { accept, undo, discard } = useFileActions(file.id);
  const navigate = useNavigate();
  const writes = writesOf(file.plan);
  const isChoosing = useIsChoosing(file.id);
  const canAccept = file.status === 'planned' && writes > 0 && !accept.isPending && !isChoosing;
  const takeBack = () =>
    undo.mutate(undefined, {
      onSuccess: ({ status }) =>
        status === 'undone' && toast.success('The file is undone; what was computed before counts again.'),
      onError: showProblem,
    });
  const takeIn = () => {
    if (!canAccept) return;
    accept.mutate(file.plan!.number, {
      onSuccess: ({ status }) =>
        status === 'accepted' &&
        toast.success(`${counted(writes, 'computed percentage')} written.`, {
          action: { label: 'Undo', onClick: takeBack },
        }),
      onError: showProblem,
    });
  };
  useKeys([{ key: 'Ctrl+Enter', says: 'accept the file', inFields: true, act: takeIn }]);
  const letGo = () =>
    discard.mutate(undefined, { onSuccess: () => void navigate(path('files')), onError: showProblem });
  return (
    <>
      {(file.status === 'read' || file.status === 'planned') && (
        <Button look="main" disabled={!canAccept} onClick={takeIn}>
          Accept {writes > 0 ? counted(writes, 'percent') : ''} <Key>Ctrl ↵</Key>
        </Button>
      )}
      {canDiscardFile(file.status) && (
        <Button writes onClick={letGo}>
          {isFileUnderWay(file.status) ? 'Stop and discard' : 'Discard the file'}
        </Button>
      )}
      {isFileUnderWay(file.status) && (
        <progress className="h-1.5 w-56" aria-label="Rows" value={file.stepsDone} max={Math.max(1, file.stepCount)} />
      )}
      {file.status === 'accepted' && (
        <>
          <Button look="main" onClick={() => void navigate(sheetPath(file, path))}>
            {file.sectionColumn === null && file.sectionId !== null ? 'Open the grade sheet' : 'Open the grade sheets'}
          </Button>
          <Button writes disabled={undo.isPending} onClick={takeBack}>
            Undo the file
          </Button>
        </>
      )}
    </>
  );
}

function sheetPath({ sectionId, sectionColumn, grades }: FileImportReply, path: (place: string) => string): string {
  const [grade] = grades;
  return path(
    sectionColumn === null && sectionId !== null && grade
      ? `grade-sheets/${sectionId}/${grade.itemId}`
      : 'grade-sheets',
  );
}
