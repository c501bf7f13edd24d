import type { RowOutcome, RowPlan } from '#core/cell-tables';
import { cellFaultSentences, type KeptRow, type TableImportReply } from '#contract/cell-tables';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Dialog } from '../ui/dialog';
import { showCount } from '../ui/format';
import type { TableLook } from './table-look';

const outcomeWords: Record<RowOutcome, string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  faulty: 'cannot be imported',
  twice: 'twice in the file',
};
const outcomeInk: Record<RowOutcome, string> = {
  new: 'text-eucalypt',
  changed: 'text-wattle',
  same: 'text-quiet',
  faulty: 'text-waratah',
  twice: 'text-waratah',
};

/** What of a table's look its rows need where they are only looked at. */
export interface ImportLook<Field extends string> extends Pick<
  TableLook<Field, KeptRow<Field>>,
  'widths' | 'staying' | 'main' | 'inFigures' | 'shown'
> {
  readonly table: {
    readonly headings: Readonly<Record<Field, string>>;
    readonly unique: { readonly field: Field };
  };
}

function columnsOf<Field extends string>({
  table: { headings, unique },
  staying,
  main,
  widths,
  inFigures,
  shown = (_field, text) => text,
}: ImportLook<Field>): readonly GridColumn<RowPlan<Field>>[] {
  const named = [...new Set([...staying, unique.field, main])];
  return [
    {
      id: 'row',
      header: 'Row',
      width: '56px',
      align: 'right',
      sortBy: ({ row }) => row,
      cell: ({ row }) => <span className="figures">{row}</span>,
    },
    {
      id: 'outcome',
      header: 'Would be',
      width: '150px',
      sortBy: ({ outcome }) => outcome,
      cell: ({ outcome }) => <b className={outcomeInk[outcome]}>{outcomeWords[outcome]}</b>,
    },
    ...named.map((field): GridColumn<RowPlan<Field>> => ({
      id: field,
      header: headings[field],
      width: `${Math.min(widths[field], 190)}px`,
      sortBy: ({ cells }) => cells[field],
      cell: ({ cells }) => <span className={inFigures.has(field) ? 'figures' : ''}>{shown(field, cells[field])}</span>,
    })),
    {
      id: 'what',
      header: 'What changes, or what is wrong',
      cell: (row) => <span title={whatOf(row, headings)}>{whatOf(row, headings)}</span>,
    },
  ];
}

/** What a row would change, or what is wrong with it. */
function whatOf<Field extends string>(
  { outcome, changed, faults, cells }: RowPlan<Field>,
  headings: Readonly<Record<Field, string>>,
): string {
  if (outcome === 'faulty')
    return faults.map(({ field, fault }) => `${headings[field]}: ${cellFaultSentences[fault]}`).join('; ');
  if (outcome === 'changed')
    return changed.map((field) => `${headings[field]}: ${cells[field] || 'nothing of its own'}`).join(', ');
  return '';
}

interface ImportRowsDialogProps<Field extends string> {
  readonly look: ImportLook<Field>;
  readonly plan: TableImportReply<Field>;
  /** What taking the useful rows is called, where they do not become a draft. */
  readonly takes?: string;
  readonly isTaking?: boolean;
  /** What else taking them would do. */
  readonly note?: string | undefined;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

/** What a file would change, row by row. Taken, the changes become a draft that is still to be saved, or are imported at once. */
export function ImportRowsDialog<Field extends string>({
  look,
  plan,
  takes,
  isTaking = false,
  note,
  onTake,
  onClose,
}: ImportRowsDialogProps<Field>) {
  const count = (outcome: RowOutcome) => plan.rows.filter((row) => row.outcome === outcome).length;
  const wrong = count('faulty') + count('twice');
  const useful = count('new') + count('changed');
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={plan.fileName}
      description={
        <>
          {showCount(count('new'))} new, {showCount(count('changed'))} changed, {showCount(count('same'))} the same
          {wrong > 0 && (
            <>
              , <b className="text-waratah">{showCount(wrong)} that cannot be imported</b>
            </>
          )}
          . Headings were found in row {plan.headerRow}.{note && ` ${note}`}
        </>
      }
      footer={
        <>
          <Button look="main" disabled={useful === 0 || isTaking} onClick={onTake}>
            {takes ?? `Use ${counted(useful, 'row')} as a draft`}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          {wrong > 0 && <span className="text-[13px] text-quiet">Rows with errors are skipped.</span>}
        </>
      }
    >
      <div className="flex h-[46vh] flex-col rounded-md border border-hairline">
        <DataGrid
          sortIn={null}
          label="Rows of the file"
          columns={columnsOf(look)}
          rows={plan.rows}
          rowKey={({ row }) => String(row)}
          empty={null}
        />
      </div>
    </Dialog>
  );
}
