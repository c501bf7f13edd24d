import { useMemo, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { rowOutcomes, type RowOutcome } from '#core/transfer';
import type { PreviewReply, PreviewRowReply } from '#contract/transfer';
import { DataGrid, type GridColumn } from '../ui/data-grid';
import { showCount, showPercent } from '../ui/format';
import { Empty } from '../ui/panel';
import { outcomeWords, reasonWords } from './words';

const inks = { so: 'text-eucalypt', quiet: 'text-quiet', warns: 'text-wattle', blocks: 'text-waratah' };
const writing: readonly RowOutcome[] = ['new', 'changed'];
const harmless: readonly RowOutcome[] = ['new', 'changed', 'same', 'blank'];

const percent = (text: string | null) =>
  text === null ? <span className="text-quiet">–</span> : <span className="figures">{showPercent(text)}</span>;

const columns: GridColumn<PreviewRowReply>[] = [
  {
    id: 'row',
    header: 'Row',
    width: '52px',
    align: 'right',
    sortBy: ({ row }) => row,
    cell: ({ row }) => <span className="figures text-quiet">{row}</span>,
  },
  {
    id: 'outcome',
    header: 'What happens',
    width: '144px',
    sortBy: ({ outcome }) => rowOutcomes.indexOf(outcome),
    cell: ({ outcome }) => (
      <b className={`font-semibold ${inks[outcomeWords[outcome].tone]}`}>{outcomeWords[outcome].name}</b>
    ),
  },
  {
    id: 'student',
    header: 'Student',
    width: '160px',
    sortBy: ({ name }) => name,
    cell: ({ name }) => name || <span className="text-quiet">–</span>,
  },
  {
    id: 'id',
    header: 'In the file',
    width: '150px',
    sortBy: ({ id }) => id,
    cell: ({ id }) => (
      <span className="figures" title={id}>
        {id}
      </span>
    ),
  },
  {
    id: 'value',
    header: 'Value',
    width: '112px',
    align: 'right',
    cell: ({ value }) => <span className="figures">{value.trim()}</span>,
  },
  {
    id: 'before',
    header: 'Now',
    width: '76px',
    align: 'right',
    sortBy: ({ before }) => Number(before ?? -1),
    cell: ({ before }) => percent(before),
  },
  {
    id: 'after',
    header: 'Then',
    width: '84px',
    align: 'right',
    sortBy: ({ after }) => Number(after ?? -1),
    cell: ({ after, outcome }) => (writing.includes(outcome) ? <b>{percent(after)}</b> : percent(null)),
  },
  {
    id: 'reason',
    header: 'Why',
    cell: ({ outcome, value, sameAs }) => (
      <span className="line-clamp-2 text-[12px] leading-[14px] whitespace-normal">
        {reasonWords(outcome, value, sameAs)}
      </span>
    ),
  },
];

/** Every row of the file and what it would do; the counts filter. */
export function PreviewLedger({ preview }: { preview: PreviewReply }) {
  const [search, setSearch] = useSearchParams();
  const shown = search.get('show');
  const rows = useMemo(() => {
    if (shown === 'left-out') return preview.rows.filter(({ outcome }) => !harmless.includes(outcome));
    return shown ? preview.rows.filter(({ outcome }) => outcome === shown) : preview.rows;
  }, [preview, shown]);
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5 border-b border-hairline px-3 py-2 text-[13px]">
        <Chip isOn={shown === null} onClick={() => setSearch({})}>
          all {showCount(preview.rows.length)}
        </Chip>
        {rowOutcomes
          .filter((outcome) => preview.counts[outcome] > 0)
          .map((outcome) => (
            <Chip key={outcome} isOn={shown === outcome} onClick={() => setSearch({ show: outcome })}>
              <span className={inks[outcomeWords[outcome].tone]}>{outcomeWords[outcome].name}</span>{' '}
              {showCount(preview.counts[outcome])}
            </Chip>
          ))}
        {preview.notInFile.length > 0 && (
          <span className="ml-auto truncate text-quiet" title={preview.notInFile.join('; ')}>
            not in the file: {preview.notInFile.slice(0, 3).join('; ')}
            {preview.notInFile.length > 3 && ` and ${preview.notInFile.length - 3} more`}
          </span>
        )}
      </div>
      <DataGrid
        label="Rows of the file"
        columns={columns}
        rows={rows}
        rowKey={({ row }) => String(row)}
        empty={<Empty title="No such row" />}
      />
    </>
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
