import type { PlannedExchangeRow } from '#core/exchange';
import type { ExchangeImportReply, ExchangeRowsQuery } from '#contract/exchange';
import { Awaited } from '../shell/awaited';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { RowsShown } from '../ui/rows-shown';
import { Empty } from '../ui/panel';
import { useExchangeRows } from './queries';
import { fileNames, outcomeInks, outcomeNames, sayRow, sayWhy } from './words';

const columns: GridColumn<PlannedExchangeRow>[] = [
  {
    id: 'place',
    header: 'File and row',
    width: '128px',
    sortBy: ({ file, line }) => `${file}${String(line).padStart(7, '0')}`,
    cell: ({ file, line }) => (
      <span>
        {fileNames[file]} <span className="figures text-quiet">{line}</span>
      </span>
    ),
  },
  {
    id: 'outcome',
    header: 'What happens',
    width: '112px',
    sortBy: ({ outcome }) => outcome,
    cell: ({ outcome }) => <b className={`font-semibold ${outcomeInks[outcome]}`}>{outcomeNames[outcome]}</b>,
  },
  {
    id: 'what',
    header: 'Row',
    width: '190px',
    sortBy: sayRow,
    cell: (planned) => (
      <span title={planned.row['sourcedId']}>
        <b className="font-semibold">{sayRow(planned)}</b>
      </span>
    ),
  },
  {
    id: 'why',
    header: 'Why, or what changes',
    cell: (planned) => (
      <span title={sayWhy(planned)} className="line-clamp-2 text-[12px] leading-[14px] whitespace-normal">
        {sayWhy(planned)}
      </span>
    ),
  },
];

interface ExchangeRowsProps {
  readonly zip: ExchangeImportReply;
  readonly query: ExchangeRowsQuery;
  readonly onShow: (query: ExchangeRowsQuery) => void;
}

/** The rows that the choice lets through. */
export function ExchangeRows({ zip, query, onShow }: ExchangeRowsProps) {
  const rows = useExchangeRows(zip, query);
  if (zip.status === 'accepting')
    return <Empty title="It is being imported">Its rows become part of what is here, a few thousand at a time.</Empty>;
  if (zip.previewId === null) return <Empty title="It was imported">Its rows are now part of what is here.</Empty>;
  const words = [query.file && fileNames[query.file], query.outcome && outcomeNames[query.outcome]].filter(Boolean);
  return (
    <Awaited query={rows} waiting="Reading the rows">
      {(data) => (
        <>
          <RowsShown
            filter={words.join(', ')}
            read={data}
            isOlder={rows.isPlaceholderData}
            narrowBy="a file or an outcome"
            onShowAll={() => onShow({})}
          />
          <DataGrid
            filterIn={null}
            label="Rows of the zip"
            columns={columns}
            rows={data.rows}
            rowKey={({ file, line }) => `${file} ${line}`}
            minWidth={640}
            empty={<Empty title="No such row" />}
          />
        </>
      )}
    </Awaited>
  );
}
