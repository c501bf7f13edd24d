import { useCallback, useMemo } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { SheetSummaryReply } from '#contract/posting';
import { agreeing, counted } from '#contract/messages';
import { countOnSheet, useSheetFindingCounts } from '../audit/sheet-findings';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { ViewSwitch } from '../ui/field';
import { showCount, showDeadline } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { FillDisc } from '../ui/state-marks';
import { useSheets } from './queries';
import { MiddleCut } from '../ui/middle-cut';

const blanks = ({ expected, posted }: SheetSummaryReply) => expected - posted;

/** The grade sheets of the period, the ones with blanks first. */
export function SheetsPage() {
  const { periodId, path } = useScope();
  const { period, termLine } = usePeriod();
  const read = useSheets(periodId);
  const { data: lists } = read;
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const list = lists?.find(({ itemId }) => itemId === Number(search.get('item'))) ?? lists?.[0];
  const showOnlyBlank = (isOn: boolean) => setSearch((before) => searchWith(before, { show: isOn ? 'blanks' : null }));
  const { data: counts } = useSheetFindingCounts(periodId);
  const findingsOn = useCallback(
    ({ sectionId }: SheetSummaryReply) => (list ? countOnSheet(counts ?? [], sectionId, list.itemId) : 0),
    [counts, list],
  );
  const isSealed = period?.posting?.sealedAt != null;
  const onlyBlank = search.get('show') === 'blanks';
  const rows = useMemo(() => {
    const sheets = list?.sheets ?? [];
    return (onlyBlank ? sheets.filter((sheet) => blanks(sheet) > 0) : sheets).toSorted((a, b) => blanks(b) - blanks(a));
  }, [list, onlyBlank]);
  const columns = useMemo(
    (): GridColumn<SheetSummaryReply>[] => [
      {
        id: 'state',
        header: 'State',
        width: '64px',
        align: 'center',
        sortBy: ({ posted, expected }) => posted / Math.max(1, expected),
        cell: ({ posted, expected }) => <FillDisc done={posted} of={expected} isSealed={isSealed} />,
      },
      {
        id: 'section',
        header: 'Section',
        sortBy: ({ section }) => section,
        cell: ({ section }) => (
          <b className="font-semibold">
            <MiddleCut text={section} />
          </b>
        ),
      },
      {
        id: 'code',
        header: 'Code',
        width: '90px',
        sortBy: ({ courseCode }) => courseCode,
        cell: ({ courseCode }) => <span className="figures">{courseCode}</span>,
      },
      {
        id: 'teacher',
        header: 'Teacher',
        width: '190px',
        sortBy: ({ teacher }) => teacher,
        cell: ({ teacher }) => teacher,
      },
      {
        id: 'department',
        header: 'Department',
        width: '180px',
        sortBy: ({ department }) => department,
        cell: ({ department }) => department,
      },
      {
        id: 'posted',
        header: 'Posted',
        width: '90px',
        align: 'right',
        sortBy: ({ posted }) => posted,
        cell: ({ posted, expected }) => <span className="figures">{`${posted} / ${expected}`}</span>,
      },
      {
        id: 'blank',
        header: 'Blank',
        width: '80px',
        align: 'right',
        sortBy: blanks,
        cell: (sheet) =>
          blanks(sheet) > 0 ? (
            <b className="figures text-wattle">{blanks(sheet)}</b>
          ) : (
            <span className="text-quiet">–</span>
          ),
      },
      {
        id: 'findings',
        header: 'Findings',
        width: '90px',
        align: 'right',
        sortBy: findingsOn,
        cell: (sheet) =>
          findingsOn(sheet) > 0 ? (
            <b className="figures text-waratah" title="of the last audit">
              {findingsOn(sheet)}
            </b>
          ) : (
            <span className="text-quiet">–</span>
          ),
      },
    ],
    [isSealed, findingsOn],
  );
  if (!lists || !period || !termLine) return <PageFace queries={[read]} />;
  if (!list) {
    return (
      <Page headline={`Nothing is posted in ${period.name}.`}>
        <Empty title="No sheet here">No report item asks for grades in this period.</Empty>
      </Page>
    );
  }
  const begun = list.sheets.filter(({ posted }) => posted > 0).length;
  const incomplete = list.sheets.filter((sheet) => blanks(sheet) > 0);
  const { window } = list;
  const next = rows.find((sheet) => blanks(sheet) > 0);
  const open = ({ sectionId }: SheetSummaryReply) => void navigate(path(`grade-sheets/${sectionId}/${list.itemId}`));
  return (
    <Page
      headline={
        <>
          {list.itemName} of {period.name}:{' '}
          <Strong>
            {showCount(list.sheets.length - incomplete.length)} of {counted(list.sheets.length, 'section')}
          </Strong>{' '}
          are complete
          {incomplete.length > 0 && (
            <>
              ,{' '}
              <FigureButton tone="warns" onClick={() => showOnlyBlank(!onlyBlank)}>
                {showCount(incomplete.length)}
              </FigureButton>{' '}
              {agreeing(incomplete.length, 'has')} blanks and{' '}
              {list.sheets.length - begun === 0
                ? 'all are begun'
                : `${showCount(list.sheets.length - begun)} ${agreeing(list.sheets.length - begun, 'is')} not begun`}
            </>
          )}
          {isSealed && '. The period is sealed.'}
          {!isSealed && window?.state === 'open' && (
            <>
              ; the window closes <Strong tone="informs">{showDeadline(window.closesAt, termLine.now)}</Strong>.
            </>
          )}
          {!isSealed &&
            window?.state === 'not yet open' &&
            `; the window opens ${showDeadline(window.opensAt, termLine.now)}.`}
          {!isSealed && window?.state === 'closed' && '; the window is closed.'}
          {!isSealed && window === null && '; there is no posting window yet.'}
        </>
      }
      aside={
        lists.length > 1 && (
          <ViewSwitch
            label="Item"
            views={lists.map(({ itemId, itemName }) => [String(itemId), itemName] as const)}
            chosen={String(list.itemId)}
            onChoose={(item) => setSearch((before) => searchWith(before, { item }))}
          />
        )
      }
      actions={
        <>
          <Button look="main" writes={false} disabled={!next || isSealed} onClick={() => next && open(next)}>
            Open the next sheet with blanks
          </Button>
          <Button onClick={() => showOnlyBlank(!onlyBlank)}>
            {onlyBlank ? 'Show all sections' : 'Show only those with blanks'}
          </Button>
        </>
      }
    >
      <Panel className="flex min-h-0 flex-1 flex-col">
        <DataGrid
          label="Grade sheets"
          columns={columns}
          rows={rows}
          rowKey={({ sectionId }) => String(sectionId)}
          onOpen={open}
          empty={
            <Empty title={onlyBlank ? 'Every section is complete' : 'No sheet here'}>
              {onlyBlank ? 'The audit comes next.' : 'No section of yours reports anything in this period.'}
            </Empty>
          }
        />
      </Panel>
    </Page>
  );
}
