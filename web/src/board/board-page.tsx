import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { counted } from '#contract/messages';
import { useMay } from '../shell/access';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useSchools, useScope } from '../shell/scope';
import { useWindowNow } from '../posting/use-window-now';
import { searchWith } from '../ui/address/search-with';
import { Button } from '../ui/button';
import { Choice, ViewSwitch } from '../ui/field';
import { showTime } from '../ui/format';
import { DataGrid } from '../ui/grid/data-grid';
import { Page } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { boardColumns } from './board-columns';
import { BoardHeadline } from './board-headline';
import {
  boardFilters,
  found,
  groupings,
  rowsOf,
  sheetsOf,
  type BoardFilter,
  type BoardRow,
  type Grouping,
} from './board-view';
import { useBoard } from './queries';
import { SchoolsBoard } from './schools-board';
import { RemindDialog } from './remind-dialog';
import { useBoardEvents } from './use-board-events';

const filterNames: Record<BoardFilter, string> = {
  all: 'all sheets',
  open: 'sheets not signed off',
  late: 'late sheets',
  blanks: 'sheets with blanks',
  dates: 'sheets with missing last dates',
  comments: 'sheets with missing comments',
  overrides: 'sheets with overrides',
  codes: 'sheets with codes',
  requests: 'sheets with requests to post',
};

/** All sheets of the period, the late ones first; it changes while others work. */
export function BoardPage() {
  const { periodId, path } = useScope();
  const { period, termLine } = usePeriod();
  const read = useBoard(periodId);
  const board = read.data;
  const now = useWindowNow(board?.now, board?.items.map(({ window }) => window) ?? [], ['board']);
  useBoardEvents();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const may = useMay();
  const { data: schools = [] } = useSchools();
  const [reminded, setReminded] = useState<readonly number[] | null>(null);
  const isBySchool = search.get('by') === 'school';
  const grouping = groupings.find((each) => each === search.get('by')) ?? 'section';
  const filter = boardFilters.find((each) => each === search.get('show')) ?? 'all';
  const itemId = Number(search.get('item')) || null;
  const [teacher, department] = [search.get('teacher'), search.get('department')];
  const put = (values: Record<string, string | null>) => setSearch((before) => searchWith(before, values));
  const sheets = useMemo(
    () =>
      board
        ? sheetsOf(board, now, itemId).filter(
            ({ section }) =>
              (teacher === null || String(section.teacherId) === teacher) &&
              (department === null || section.department === department),
          )
        : [],
    [board, now, itemId, teacher, department],
  );
  const shown = useMemo(() => found(sheets, filter), [sheets, filter]);
  const rows = useMemo(() => rowsOf(shown, grouping), [shown, grouping]);
  const columns = useMemo(() => (board ? boardColumns(grouping, board, itemId) : []), [board, grouping, itemId]);
  if (!board || !period || !termLine) return <PageFace queries={[read]} />;
  const open = (row: BoardRow) => {
    if (grouping === 'teacher') return put({ by: null, teacher: row.key });
    if (grouping === 'department') return put({ by: null, department: row.key });
    const next = row.sheets.find(({ isOpen }) => isOpen) ?? row.sheets[0]!;
    return void navigate(path(`grade-sheets/${row.section.sectionId}/${next.item.itemId}`));
  };
  const toRemind = [...new Set(shown.filter(({ isOpen }) => isOpen).map(({ section }) => section.teacherId))];
  const only = teacher === null ? department : sheets[0]?.section.teacher;
  return (
    <Page
      headline={
        <BoardHeadline
          board={board}
          periodName={period.name}
          now={now}
          sheets={sheets}
          onShow={(show) => put({ show: show === filter ? null : show })}
        />
      }
      actions={
        !isBySchool && (
          <>
            {may('read-outbox') && (
              <Button look="main" disabled={toRemind.length === 0} onClick={() => setReminded(toRemind)}>
                Remind {counted(toRemind.length, 'teacher')}…
              </Button>
            )}
            <span className="pl-1">
              Show{' '}
              <Choice label="Show" value={filter} onChange={(event) => put({ show: event.target.value })}>
                {boardFilters.map((each) => (
                  <option key={each} value={each}>
                    {filterNames[each]}
                  </option>
                ))}
              </Choice>
              {board.items.length > 1 && (
                <>
                  {' '}
                  of{' '}
                  <Choice
                    label="Report item"
                    value={itemId ?? ''}
                    onChange={(event) => put({ item: event.target.value || null })}
                  >
                    <option value="">every item</option>
                    {board.items.map((item) => (
                      <option key={item.itemId} value={item.itemId}>
                        {item.name}
                      </option>
                    ))}
                  </Choice>
                </>
              )}
            </span>
            {only && (
              <Button look="quiet" onClick={() => put({ teacher: null, department: null })}>
                {only} ✕<span className="sr-only">, show everybody again</span>
              </Button>
            )}
          </>
        )
      }
      aside={
        <ViewSwitch<Grouping | 'school'>
          label="Group by"
          views={[
            ['section', 'Sections'],
            ['teacher', 'Teachers'],
            ['department', 'Departments'],
            ...(schools.length > 1 && may('read-findings') ? [['school', 'Schools'] as const] : []),
          ]}
          chosen={isBySchool ? 'school' : grouping}
          onChoose={(by) => put({ by: by === 'section' ? null : by })}
        />
      }
      below={`As of ${showTime(now)}. It changes while others work.`}
    >
      <Panel className="flex min-h-0 flex-1 flex-col">
        {isBySchool ? (
          <SchoolsBoard />
        ) : (
          <DataGrid
            label={
              grouping === 'section' ? 'Board' : grouping === 'teacher' ? 'Board by teacher' : 'Board by department'
            }
            columns={columns}
            rows={rows}
            rowKey={({ key }) => key}
            onOpen={open}
            minWidth={780 + 114 * board.items.length}
            empty={
              <Empty title={board.sections.length === 0 ? 'No sheet here' : 'No such sheet'}>
                {board.sections.length === 0
                  ? 'No section reports anything in this period. Report items say what is posted when.'
                  : `There are no ${filterNames[filter]} now.`}
              </Empty>
            }
          />
        )}
      </Panel>
      {reminded && <RemindDialog teacherIds={reminded} onClose={() => setReminded(null)} />}
    </Page>
  );
}
