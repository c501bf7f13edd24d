import { courseHeadings, type CourseRowOutcome, type CourseRowPlan } from '#core/courses';
import { cellFaultSentences, type CourseImportReply } from '#contract/courses';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Dialog } from '../ui/dialog';
import { showCount } from '../ui/format';

const outcomeWords: Record<CourseRowOutcome, string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  faulty: 'cannot be imported',
  twice: 'twice in the file',
};
const outcomeInk: Record<CourseRowOutcome, string> = {
  new: 'text-eucalypt',
  changed: 'text-wattle',
  same: 'text-quiet',
  faulty: 'text-waratah',
  twice: 'text-waratah',
};

const columns: readonly GridColumn<CourseRowPlan>[] = [
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
    width: '120px',
    sortBy: ({ outcome }) => outcome,
    cell: ({ outcome }) => <b className={outcomeInk[outcome]}>{outcomeWords[outcome]}</b>,
  },
  {
    id: 'code',
    header: 'Code',
    width: '90px',
    sortBy: ({ cells }) => cells.code,
    cell: ({ cells }) => <span className="figures">{cells.code}</span>,
  },
  {
    id: 'title',
    header: 'Title',
    width: '210px',
    sortBy: ({ cells }) => cells.title,
    cell: ({ cells }) => cells.title,
  },
  {
    id: 'what',
    header: 'What changes, or what is wrong',
    cell: ({ outcome, changed, faults, cells }) =>
      outcome === 'faulty'
        ? faults.map(({ field, fault }) => `${courseHeadings[field]}: ${cellFaultSentences[fault]}`).join('; ')
        : outcome === 'changed'
          ? changed.map((field) => `${courseHeadings[field]}: ${cells[field] || 'inherited'}`).join(', ')
          : '',
  },
];

interface ImportCoursesDialogProps {
  readonly plan: CourseImportReply;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

/** What a file of courses would change, row by row. Taken, the changes become a draft that is still to be saved. */
export function ImportCoursesDialog({ plan, onTake, onClose }: ImportCoursesDialogProps) {
  const count = (outcome: CourseRowOutcome) => plan.rows.filter((row) => row.outcome === outcome).length;
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
          . Headings were found in row {plan.headerRow}.
        </>
      }
      footer={
        <>
          <Button look="main" disabled={useful === 0} onClick={onTake}>
            Use {counted(useful, 'row')} as a draft
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
          columns={columns}
          rows={plan.rows}
          rowKey={({ row }) => String(row)}
          empty={null}
        />
      </div>
    </Dialog>
  );
}
