import type { ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { countOutcomes, isWritten, rowOutcomes } from '#core/files';
import type { FileImportReply, FilePlanReply, FileRowReply, FileRowsQuery } from '#contract/files';
import { Awaited } from '../shell/awaited';
import { searchWith } from '../ui/address/search-with';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount, showPercent } from '../ui/format';
import { Empty } from '../ui/panel';
import { Remarks } from '../ui/remarks';
import { useFileRows } from './queries';
import { outcomeWords, reasonWords } from './words';

const inks = { so: 'text-eucalypt', quiet: 'text-quiet', warns: 'text-wattle', blocks: 'text-waratah' };

/** Every value of the file and what it would do; the counts filter. */
export function FileLedger({ file, plan }: { file: FileImportReply; plan: FilePlanReply }) {
  const [search, setSearch] = useSearchParams();
  const show = shownBy(search.get('show'));
  const rows = useFileRows(file, show);
  const { data } = rows;
  const all = countOutcomes(plan, () => true);
  const { notInFile } = plan;
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5 border-b border-hairline px-3 py-2 text-[13px]">
        <Chip isOn={show === undefined} onClick={() => setSearch((before) => searchWith(before, { show: null }))}>
          all {showCount(all)}
        </Chip>
        {rowOutcomes
          .filter((outcome) => plan.counts[outcome] > 0)
          .map((outcome) => (
            <Chip
              key={outcome}
              isOn={show === outcome}
              onClick={() => setSearch((before) => searchWith(before, { show: outcome }))}
            >
              <span className={inks[outcomeWords[outcome].tone]}>{outcomeWords[outcome].name}</span>{' '}
              {showCount(plan.counts[outcome])}
            </Chip>
          ))}
        {data && data.total > data.rows.length && (
          <span className="text-quiet">the first {showCount(data.rows.length)} are here</span>
        )}
        {notInFile.count > 0 && (
          <span className="ml-auto truncate text-quiet" title={notInFile.names.join('; ')}>
            not in the file: {notInFile.names.slice(0, 3).join('; ')}
            {notInFile.count > 3 && ` and ${showCount(notInFile.count - 3)} more`}
          </span>
        )}
      </div>
      <Awaited query={rows} waiting="Reading the rows">
        {(read) => (
          <DataGrid
            filterIn={null}
            label="Rows of the file"
            columns={columnsOf(file)}
            rows={read.rows}
            rowKey={({ row, itemId }) => `${row} ${itemId}`}
            empty={<Empty title="No such row" />}
          />
        )}
      </Awaited>
    </>
  );
}

function shownBy(text: string | null): FileRowsQuery['show'] {
  return text === 'left-out' ? text : rowOutcomes.find((outcome) => outcome === text);
}

function columnsOf({ items, grades, sectionColumn }: FileImportReply): GridColumn<FileRowReply>[] {
  const names = new Map(items.map(({ id, name }) => [id, name]));
  const section: GridColumn<FileRowReply> = {
    id: 'section',
    header: 'Section',
    width: '132px',
    sortBy: (row) => row.section ?? row.givenSection ?? '',
    cell: ({ section: found, givenSection }) => found ?? <span className="figures text-quiet">{givenSection}</span>,
  };
  const item: GridColumn<FileRowReply> = {
    id: 'item',
    header: 'Item',
    width: '104px',
    sortBy: ({ itemId }) => names.get(itemId) ?? '',
    cell: ({ itemId }) => names.get(itemId),
  };
  return [
    ...ofTheRow,
    ...(sectionColumn === null ? [] : [section]),
    ...(grades.length > 1 ? [item] : []),
    ...ofTheValue,
  ];
}

const ofTheRow: readonly GridColumn<FileRowReply>[] = [
  {
    id: 'row',
    header: 'Row',
    width: '60px',
    align: 'right',
    sortBy: ({ row }) => row,
    cell: ({ row }) => <span className="figures text-quiet">{row}</span>,
  },
  {
    id: 'outcome',
    header: 'What happens',
    width: '136px',
    sortBy: ({ outcome }) => rowOutcomes.indexOf(outcome),
    cell: ({ outcome }) => (
      <b className={`font-semibold ${inks[outcomeWords[outcome].tone]}`}>{outcomeWords[outcome].name}</b>
    ),
  },
  {
    id: 'student',
    header: 'Student',
    width: '150px',
    sortBy: ({ name }) => name,
    cell: ({ name }) => name || <span className="text-quiet">–</span>,
  },
  {
    id: 'id',
    header: 'In the file',
    width: '112px',
    sortBy: ({ givenId }) => givenId,
    cell: ({ givenId }) => (
      <span className="figures" title={givenId}>
        {givenId}
      </span>
    ),
  },
];

const ofTheValue: readonly GridColumn<FileRowReply>[] = [
  {
    id: 'value',
    header: 'Value',
    width: '96px',
    align: 'right',
    cell: ({ value }) => <span className="figures">{value}</span>,
  },
  {
    id: 'becomes',
    header: 'Becomes, or why not',
    cell: (row) => <Becomes row={row} />,
  },
];

/** The percent before and after, or why there is none. */
function Becomes({ row }: { row: FileRowReply }) {
  const { outcome, before, after, remarks } = row;
  if (after === null)
    return <span className="line-clamp-2 text-[12px] leading-[14px] whitespace-normal">{reasonWords(row)}</span>;
  return (
    <span className="flex items-center gap-2">
      <span className="figures shrink-0">
        {outcome === 'changed' && <span className="text-quiet">{showPercent(before!)} → </span>}
        {isWritten(outcome) ? <b>{showPercent(after)}</b> : showPercent(after)}
      </span>
      <Remarks remarks={remarks} />
    </span>
  );
}

function Chip({ isOn, onClick, children }: { isOn: boolean; onClick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onClick}
      className={`rounded-full border px-2.5 py-0.5 font-semibold ${isOn ? 'border-eucalypt bg-eucalypt-soft' : 'border-hairline hover:border-control'}`}
    >
      {children}
    </button>
  );
}
