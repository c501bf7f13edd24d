import { lateness, type SheetCounts, type SheetTotals } from '#core/board';
import { lacksInWords, type BoardReply } from '#contract/board';
import { counted, listed } from '#contract/messages';
import type { GridColumn } from '../ui/grid/data-grid';
import { MiddleCut } from '../ui/middle-cut';
import { FillDisc } from '../ui/state-marks';
import { showCount, showInstant } from '../ui/format';
import type { BoardRow, BoardSheet, Grouping } from './board-view';

const count = (figure: number, tone = 'text-wattle') =>
  figure > 0 ? <b className={`figures ${tone}`}>{showCount(figure)}</b> : <span className="text-quiet">–</span>;

/** The columns of the board, of sections, teachers or departments. */
export function boardColumns(
  grouping: Grouping,
  board: Pick<BoardReply, 'items' | 'sealedAt'>,
  itemId: number | null,
): GridColumn<BoardRow>[] {
  const isSealed = board.sealedAt !== null;
  const items = board.items.filter((item) => itemId === null || item.itemId === itemId);
  return [
    ...whose(grouping),
    ...(grouping === 'section'
      ? items.map((item) => sheetColumn(item, isSealed))
      : [signedOffColumn<BoardRow>(() => isSealed)]),
    ...countColumns<BoardRow>(),
    {
      id: 'reminded',
      header: 'Reminded',
      width: '112px',
      sortBy: ({ reminded }) => reminded?.at ?? '',
      cell: ({ reminded }) =>
        reminded ? (
          <span title={`${counted(reminded.times, 'reminder')}, the last one by ${reminded.by}`}>
            {showInstant(reminded.at)}
            {reminded.times > 1 && <span className="text-quiet"> · {showCount(reminded.times)}×</span>}
          </span>
        ) : (
          <span className="text-quiet">–</span>
        ),
    },
  ];
}

function whose(grouping: Grouping): GridColumn<BoardRow>[] {
  const teacher: GridColumn<BoardRow> = {
    id: 'teacher',
    header: 'Teacher',
    ...(grouping === 'section' ? { width: '126px' } : {}),
    sortBy: ({ section }) => section.teacher,
    cell: ({ section }) => <MiddleCut text={section.teacher} />,
  };
  const department: GridColumn<BoardRow> = {
    id: 'department',
    header: 'Department',
    sortBy: ({ section }) => section.department,
    cell: ({ section }) => <MiddleCut text={section.department} />,
  };
  if (grouping === 'teacher') return [teacher];
  if (grouping === 'department') return [department];
  const section: GridColumn<BoardRow> = {
    id: 'section',
    header: 'Section',
    sortBy: ({ section: { section: name } }) => name,
    cell: ({ section: { section: name } }) => (
      <b className="font-semibold">
        <MiddleCut text={name} />
      </b>
    ),
  };
  return [section, teacher];
}

function sheetColumn(item: BoardReply['items'][number], isSealed: boolean): GridColumn<BoardRow> {
  const own = ({ sheets }: BoardRow) => sheets.find((each) => each.item.itemId === item.itemId);
  return {
    id: `item-${item.itemId}`,
    header: item.name,
    width: '114px',
    sortBy: (row) => {
      const sheet = own(row);
      return sheet
        ? sheet.stage === 'signed off'
          ? 2
          : 1 - sheet.sheet.blanks / Math.max(1, sheet.sheet.expected)
        : 3;
    },
    findBy: (row) => (own(row) ? stateInWords(own(row)!, isSealed) : ''),
    cell: (row) => {
      const sheet = own(row);
      return sheet ? <SheetState sheet={sheet} isSealed={isSealed} /> : <span className="text-quiet">–</span>;
    },
  };
}

function SheetState({ sheet, isSealed }: { sheet: BoardSheet; isSealed: boolean }) {
  const { expected, blanks, signedOff } = sheet.sheet;
  const words = stateInWords(sheet, isSealed);
  const tone = sheet.late > 0 ? 'font-semibold text-waratah' : sheet.isDue && !signedOff ? 'text-wattle' : 'text-quiet';
  const lacks = listed(lacksInWords(sheet.sheet));
  const told = [lacks, signedOff && `signed off by ${signedOff.by}`, signedOff?.note].filter(Boolean).join('; ');
  return (
    <span className="flex items-center gap-2" title={told || undefined}>
      <FillDisc done={expected - blanks} of={expected} isSealed={isSealed} isSignedOff={signedOff !== null} />
      <span className={`truncate ${tone}`}>{words}</span>
    </span>
  );
}

/** How far a sheet is, in a word or two. */
export function stateInWords({ sheet, stage, isDue, late }: BoardSheet, isSealed: boolean): string {
  if (isSealed) return 'sealed';
  if (sheet.expected === 0) return 'nobody graded';
  if (!isDue && stage !== 'signed off') return 'not due';
  if (late > 0) return `late ${counted(...lateness(late))}`;
  return stage === 'begun' ? `${showCount(sheet.blanks)} blank` : stage;
}

/** How many sheets of a row are signed off, and how late the latest is. */
export function signedOffColumn<Row extends Pick<SheetTotals, 'signedOff' | 'due' | 'late'>>(
  isSealed: (row: Row) => boolean,
): GridColumn<Row> {
  return {
    id: 'signed-off',
    header: 'Signed off',
    width: '170px',
    sortBy: ({ signedOff, due }) => signedOff / Math.max(1, due),
    cell: (row) =>
      row.due === 0 ? (
        <span className="text-quiet">{isSealed(row) ? 'sealed' : 'not due'}</span>
      ) : (
        <span className="flex items-center gap-2">
          <FillDisc done={row.signedOff} of={row.due} isSignedOff={row.signedOff === row.due} />
          <span className="figures">{`${showCount(row.signedOff)} / ${showCount(row.due)}`}</span>
          {row.late > 0 && <b className="text-waratah">{`late ${counted(...lateness(row.late))}`}</b>}
        </span>
      ),
  };
}

/** What the sheets of a row have and lack. */
export function countColumns<Row extends SheetCounts>(): GridColumn<Row>[] {
  return [
    figures('blanks', 'Blank', 60, ({ blanks }) => blanks),
    figures('codes', 'Codes', 62, ({ codes }) => codes, 'text-ink'),
    figures('dates', 'No date', 74, ({ missingDates }) => missingDates),
    figures('comments', 'No comment', 102, ({ missingComments }) => missingComments),
    figures('overrides', 'Overrides', 86, ({ overrides }) => overrides, 'text-ink'),
  ];
}

function figures<Row>(
  id: string,
  header: string,
  width: number,
  of: (row: Row) => number,
  tone?: string,
): GridColumn<Row> {
  return {
    id,
    header,
    width: `${width}px`,
    align: 'right',
    sortBy: of,
    cell: (row) => count(of(row), tone),
  };
}
