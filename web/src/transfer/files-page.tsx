import { FileUp } from 'lucide-react';
import { useRef, useState, type DragEvent } from 'react';
import { useNavigate } from 'react-router';
import type { FileImportSummaryReply } from '#contract/transfer';
import { largestFileMegabytes } from '#contract/transfer';
import { ProblemError } from '../shell/api';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/data-grid';
import { plural, showCount, showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Note, Panel } from '../ui/panel';
import { useFiles, useReadFile } from './queries';

const statusWords = { read: 'read, not accepted', accepted: 'accepted', undone: 'taken back' } as const;

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
    cell: ({ status }) => (
      <span className={status === 'read' ? 'font-semibold text-wattle' : ''}>{statusWords[status]}</span>
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
  const { data: files } = useFiles(periodId);
  const read = useReadFile(periodId);
  const navigate = useNavigate();
  const chooser = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const [tooLarge, setTooLarge] = useState<string | undefined>();
  if (!files || !period) return null;

  const take = (file: File | undefined) => {
    if (!file) return;
    const isTooLarge = file.size > largestFileMegabytes * 1024 * 1024;
    setTooLarge(isTooLarge ? file.name : undefined);
    read.reset();
    if (!isTooLarge) read.mutate(file, { onSuccess: ({ id }) => void navigate(path(`files/${id}`)) });
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files[0]);
  };
  const waiting = files.filter(({ status }) => status === 'read').length;
  const accepted = files.filter(({ status }) => status === 'accepted').length;
  return (
    <Page
      headline={
        <>
          <Strong>{plural(accepted, 'file')}</Strong> {accepted === 1 ? 'is' : 'are'} taken in for {period.name}
          {waiting > 0 ? (
            <>
              ; <Strong tone="warns">{plural(waiting, 'file')}</Strong> {waiting === 1 ? 'waits' : 'wait'} to be
              accepted.
            </>
          ) : (
            '.'
          )}
        </>
      }
    >
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex items-center gap-5 rounded-md border-2 border-dashed px-6 py-5 ${isOver ? 'border-eucalypt bg-eucalypt-soft' : 'border-control/50 bg-surface'}`}
      >
        <FileUp size={26} className="text-eucalypt" aria-hidden />
        <p className="flex-1">
          <b>Drop an export of a learning platform here.</b>
          <span className="block text-[13px] text-quiet">
            CSV or XLSX of any layout, at most {largestFileMegabytes} MB. Nothing is written before you have seen every
            row and accepted it.
          </span>
        </p>
        <Button look="main" disabled={read.isPending} onClick={() => chooser.current?.click()}>
          {read.isPending ? 'Reading…' : 'Choose a file…'}
        </Button>
        <input
          ref={chooser}
          type="file"
          aria-label="Export file"
          accept=".csv,.txt,.tsv,.xlsx,text/csv"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {tooLarge && (
        <Note tone="blocks" title="The file is too large">
          <p>
            {tooLarge} has more than {largestFileMegabytes} MB. Export one section or one period at a time.
          </p>
        </Note>
      )}
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
          onChoose={({ id }) => void navigate(path(`files/${id}`))}
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
