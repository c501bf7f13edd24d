import { useNavigate } from 'react-router';
import type { StudentReply } from '#contract/transcripts';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { plural } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { useStudents } from './queries';

const columns: GridColumn<StudentReply>[] = [
  {
    id: 'name',
    header: 'Student',
    sortBy: ({ name }) => name,
    cell: ({ name }) => <b className="font-semibold">{name}</b>,
  },
  {
    id: 'number',
    header: 'Number',
    width: '140px',
    sortBy: ({ studentNumber }) => studentNumber,
    cell: ({ studentNumber }) => <span className="figures">{studentNumber}</span>,
  },
  {
    id: 'year',
    header: 'Year',
    width: '90px',
    align: 'center',
    sortBy: ({ yearGroup }) => Number(yearGroup) || 0,
    cell: ({ yearGroup }) => <span className="figures">{yearGroup}</span>,
  },
];

/** The students of the school; choosing one opens the transcript. */
export function StudentsPage() {
  const { schoolId, path } = useScope();
  const { termLine } = usePeriod();
  const [text, onText] = useTextInAddress('text');
  const found = useStudents(schoolId, text);
  const { data: students } = found;
  const navigate = useNavigate();
  if (!students || !termLine) return <PageFace queries={[found]} />;
  return (
    <Page
      headline={
        <>
          <Strong>{plural(students.length, 'student')}</Strong> of {termLine.school.shortName}
          {text ? ` ${students.length === 1 ? 'matches' : 'match'} “${text}”.` : '; choose one to see the transcript.'}
        </>
      }
      actions={
        <input
          type="search"
          aria-label="Name or number"
          placeholder="Name or number"
          value={text}
          autoFocus
          onChange={(event) => onText(event.target.value)}
          className="h-8 w-[280px] rounded-md border border-control bg-surface px-2.5"
        />
      }
    >
      <Panel className="flex min-h-0 flex-1 flex-col">
        <DataGrid
          label="Students"
          columns={columns}
          rows={students}
          rowKey={({ id }) => String(id)}
          onChoose={({ id }) => void navigate(path(`students/${id}`))}
          empty={<Empty title="No student matches">Try the beginning of the family name.</Empty>}
        />
      </Panel>
    </Page>
  );
}
