import { FileUp } from 'lucide-react';
import { useNavigate } from 'react-router';
import { doesFileWait, isFileUnderWay, type FileStatus } from '#core/files';
import type { FileImportSummaryReply } from '#contract/files';
import { largestFileMegabytes } from '#contract/files';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { ProblemError } from '../shell/api';
import { usePeriod, useScope } from '../shell/scope';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { FileDrop } from '../ui/file-drop';
import { showCount, showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Note, Panel } from '../ui/panel';
import { useFiles, useReadFile } from './queries';
import { shareDone } from './words';

const statusWords: Readonly<Record<FileStatus, string>> = {
  reading: 'being read',
  refused: 'refused',
  read: 'columns to choose',
  planning: 'being planned',
  planned: 'to be accepted',
  accepting: 'being written',
  accepted: 'accepted',
  undoing: 'being undone',
  undone: 'undone',
};

const columns: GridColumn<FileImportSummaryReply>[] = [
  {
    id: 'name',
    header: 'File',
    sortBy: ({ fileName }) => fileName,
    cell: ({ fileName }) => <b className="font-semibold">{fileName}</b>,
  },
  {
    id: 'section',
    header: 'Section',
    width: '220px',
    sortBy: ({ section }) => section ?? '',
    cell: ({ section }) => section ?? <span className="text-quiet">several</span>,
  },
  {
    id: 'status',
    header: 'State',
    width: '150px',
    sortBy: ({ status }) => status,
    cell: (file) => (
      <span className={doesFileWait(file.status) ? 'font-semibold text-wattle' : ''}>
        {statusWords[file.status]} {isFileUnderWay(file.status) && shareDone(file)}
      </span>
    ),
  },
  {
    id: 'written',
    header: 'Written',
    width: '90px',
    align: 'right',
    sortBy: ({ written }) => written,
    cell: ({ written }) => <span className="figures">{written > 0 ? showCount(written) : '–'}</span>,
  },
  { id: 'by', header: 'By', width: '150px', sortBy: ({ readBy }) => readBy, cell: ({ readBy }) => readBy },
  {
    id: 'at',
    header: 'Read',
    width: '160px',
    sortBy: ({ readAt }) => readAt,
    cell: ({ readAt }) => showInstant(readAt),
  },
];

/** The files of the period, and the place where a new one is put. */
export function FilesPage() {
  const { periodId, path } = useScope();
  const { period } = usePeriod();
  const kept = useFiles(periodId);
  const { data: files } = kept;
  const read = useReadFile(periodId);
  const navigate = useNavigate();
  if (!files || !period) return <PageFace queries={[kept]} />;

  const waiting = files.filter(({ status }) => doesFileWait(status)).length;
  const accepted = files.filter(({ status }) => status === 'accepted').length;
  return (
    <Page
      headline={
        <>
          <Strong>{counted(accepted, 'file')}</Strong> {agreeing(accepted, 'is')} imported for {period.name}
          {waiting > 0 ? (
            <>
              ; <Strong tone="warns">{counted(waiting, 'file')}</Strong> {agreeing(waiting, 'waits')} for you.
            </>
          ) : (
            '.'
          )}
        </>
      }
    >
      <FileDrop
        icon={FileUp}
        label="Export file"
        title="Drop an export of a learning platform here."
        buttonWords="Choose a file…"
        accept=".csv,.txt,.tsv,.xlsx,text/csv"
        mostMegabytes={largestFileMegabytes}
        tooLargeWords="Export one section or one period at a time."
        isReading={read.isPending}
        onFile={(file) => read.mutate(file, { onSuccess: ({ id }) => void navigate(path(`files/${id}`)) })}
      >
        CSV or XLSX of any layout, of one section or a whole school, at most {largestFileMegabytes} MB. Nothing is
        written before you have seen what every row does and accepted it.
      </FileDrop>
      {read.error instanceof ProblemError && (
        <div role="alert">
          <Note tone="blocks" title={read.error.problem.title}>
            <p>{read.error.problem.detail}</p>
          </Note>
        </div>
      )}
      <Panel className="flex min-h-0 flex-1 flex-col">
        <DataGrid
          label="Files of the period"
          columns={columns}
          rows={files}
          rowKey={({ id }) => String(id)}
          onOpen={({ id }) => void navigate(path(`files/${id}`))}
          empty={
            <Empty title="No file yet">
              The totals of the learning platforms come in as files; put the first one above.
            </Empty>
          }
        />
      </Panel>
    </Page>
  );
}
