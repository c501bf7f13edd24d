import { canCarryOut, isWriting, type LedgerOutcome } from '#core/runs';
import { reasonWords, type RunReply, type RunRowReply, type RunRowsQuery } from '#contract/runs';
import { counted } from '#contract/messages';
import { Awaited } from '../shell/awaited';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Remarks } from '../ui/remarks';
import { RowsShown } from '../ui/rows-shown';
import { Empty } from '../ui/panel';
import { useRunActions, useRunRows } from './run-queries';
import { kindNames, outcomeNames, resultNames, sayReason, showChange } from './run-words';

const inks: Record<LedgerOutcome, string> = {
  create: 'text-eucalypt',
  change: 'text-eucalypt',
  same: 'text-quiet',
  skip: 'text-wattle',
  refuse: 'text-waratah',
};

interface RunLedgerProps {
  readonly run: RunReply;
  readonly query: RunRowsQuery;
  readonly chosenId: number | null;
  readonly onChoose: (row: RunRowReply) => void;
  readonly onShow: (query: RunRowsQuery) => void;
}

/** The lines that the filter lets through: what becomes of each, and why. */
export function RunLedger({ run, query, chosenId, onChoose, onShow }: RunLedgerProps) {
  const rows = useRunRows(run, query);
  const { pick } = useRunActions(run.id);
  const titles = new Map(run.classes.map(({ classId, title, section }) => [classId, section ?? title]));
  const categories = new Map(run.categories.map(({ id, name }) => [id, name]));
  const mayPick = canCarryOut(run);
  const filters = filterWords(query, titles);
  return (
    <Awaited query={rows} waiting="Reading the rows">
      {(data) => (
        <>
          <RowsShown
            filter={filters}
            read={data}
            isOlder={rows.isPlaceholderData}
            narrowBy="a reason or a class"
            onShowAll={() => onShow({})}
          />
          <DataGrid
            filterIn={null}
            label="Rows of the run"
            columns={columnsOf(
              titles,
              categories,
              mayPick ? (row, isPicked) => pick.mutate(pickOf(row, isPicked)) : null,
            )}
            rows={data.rows}
            rowKey={({ id }) => String(id)}
            chosenKey={chosenId === null ? null : String(chosenId)}
            onReach={onChoose}
            minWidth={640}
            empty={<Empty title="No such row" />}
          />
        </>
      )}
    </Awaited>
  );
}

/** An assignment is picked with its scores, which would have nowhere to stand without it. */
export function pickOf({ id, kind, columnKey }: RunRowReply, isPicked: boolean) {
  return kind === 'assignment'
    ? { kind: 'column' as const, keys: [columnKey], isPicked }
    : { kind: 'row' as const, keys: [String(id)], isPicked };
}

function columnsOf(
  titles: ReadonlyMap<number, string>,
  categories: ReadonlyMap<number, string>,
  onPick: ((row: RunRowReply, isPicked: boolean) => void) | null,
): readonly GridColumn<RunRowReply>[] {
  const picks: GridColumn<RunRowReply> = {
    id: 'pick',
    header: <span className="sr-only">Picked</span>,
    width: '44px',
    align: 'center',
    cell: (row) =>
      isWriting(row.outcome) && (
        <input
          type="checkbox"
          aria-label={`Carry out ${row.name}`}
          className="size-4 accent-eucalypt"
          checked={row.isPicked}
          onClick={(event) => event.stopPropagation()}
          onChange={({ target }) => onPick?.(row, target.checked)}
        />
      ),
  };
  return [
    ...(onPick ? [picks] : []),
    {
      id: 'outcome',
      header: 'What',
      width: '156px',
      sortBy: ({ outcome, kind }) => outcome + kind,
      cell: ({ outcome, kind, result }) => (
        <span>
          <b className={`font-semibold ${inks[outcome]}`}>{result ? resultNames[result] : outcomeNames[outcome]}</b>{' '}
          <span className="text-quiet">{kindNames[kind]}</span>
        </span>
      ),
    },
    {
      id: 'class',
      header: 'Section',
      width: '140px',
      sortBy: ({ classId }) => titles.get(classId) ?? '',
      cell: ({ classId }) => titles.get(classId),
    },
    {
      id: 'name',
      header: 'Which',
      width: '164px',
      sortBy: ({ name }) => name,
      cell: ({ name, column }) => (
        <span title={column ? `${name}, ${column}` : name}>
          <b className="font-semibold">{name}</b>
          {column && <span className="text-quiet"> {column}</span>}
        </span>
      ),
    },
    {
      id: 'why',
      header: 'Becomes, or why not',
      cell: (row) => (
        <span title={row.reasons.map(sayReason).join(' ')}>
          {isWriting(row.outcome) ? (
            <span className="flex items-center gap-2">
              <span className="figures shrink-0 text-[12px]">{showChange(row, categories)}</span>
              <Remarks remarks={row.remarks} />
            </span>
          ) : (
            row.reasons.map(({ code }) => reasonWords[code].brief).join('; ')
          )}
          {row.heldBack > 0 && <span className="text-quiet"> – {counted(row.heldBack, 'score')} skipped</span>}
        </span>
      ),
    },
  ];
}

function filterWords(
  { outcome, kind, reason, classId, result }: RunRowsQuery,
  titles: ReadonlyMap<number, string>,
): string {
  return [
    classId === undefined ? null : titles.get(classId),
    outcome && outcomeNames[outcome],
    result && resultNames[result],
    kind && kindNames[kind],
    reason && reasonWords[reason].brief,
  ]
    .filter((word) => word != null)
    .join(', ');
}
