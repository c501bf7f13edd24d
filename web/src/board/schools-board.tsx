import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { BoardSchoolReply } from '#contract/board';
import { Awaited } from '../shell/awaited';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Empty } from '../ui/panel';
import { countColumns, signedOffColumn } from './board-columns';
import { useSchoolsBoard } from './queries';

/** How far each school is, the late ones first; a school leads to its own board. */
export function SchoolsBoard() {
  const read = useSchoolsBoard();
  const navigate = useNavigate();
  const columns = useMemo(
    (): GridColumn<BoardSchoolReply>[] => [
      {
        id: 'school',
        header: 'School',
        sortBy: ({ school }) => school,
        cell: ({ school }) => <b className="font-semibold">{school}</b>,
      },
      { id: 'period', header: 'Period', width: '170px', sortBy: ({ period }) => period, cell: ({ period }) => period },
      signedOffColumn(({ sealedAt }) => sealedAt !== null),
      ...countColumns<BoardSchoolReply>(),
    ],
    [],
  );
  return (
    <Awaited query={read} waiting="Counting the sheets of each school">
      {(schools) => (
        <DataGrid
          label="Board by school"
          columns={columns}
          rows={schools.toSorted((a, b) => b.late - a.late || b.due - b.signedOff - (a.due - a.signedOff))}
          rowKey={({ schoolId }) => String(schoolId)}
          onOpen={({ schoolId, periodId }) => void navigate(`/school/${schoolId}/period/${periodId}/board`)}
          minWidth={780}
          empty={<Empty title="No school here">Boards of schools are for those who audit them.</Empty>}
        />
      )}
    </Awaited>
  );
}
