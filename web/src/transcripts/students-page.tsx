import { useNavigate } from 'react-router';
import type { StudentRowReply } from '#contract/transcripts';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showDecimal } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { useStudents } from './queries';

const columns: GridColumn<StudentRowReply>[] = [
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
  {
    id: 'credits',
    header: 'Credits earned',
    width: '150px',
    align: 'right',
    sortBy: ({ creditsEarned }) => Number(creditsEarned),
    cell: ({ creditsEarned, creditsAttempted }) => (
      <span className="figures">
        {showCredits(creditsEarned)} <span className="text-quiet">of {showCredits(creditsAttempted)}</span>
      </span>
    ),
  },
  {
    id: 'gpa',
    header: 'GPA',
    width: '90px',
    align: 'right',
    sortBy: ({ gpa }) => (gpa === null ? -1 : Number(gpa)),
    cell: ({ gpa }) => (gpa === null ? <span className="text-quiet">–</span> : <span className="figures">{gpa}</span>),
  },
  {
    id: 'blanks',
    header: 'Blank now',
    width: '110px',
    align: 'right',
    sortBy: ({ blanks }) => blanks,
    cell: ({ blanks }) =>
      blanks === 0 ? <span className="text-quiet">–</span> : <b className="figures text-wattle">{blanks}</b>,
  },
];

/** Credits on one point, so that they align: 3.25, 12.00. */
const showCredits = (credits: string) => showDecimal(credits, 2);

/** The students of the school with credits, GPA and what the period lacks; choosing one opens the transcript. */
export function StudentsPage() {
  const { schoolId, periodId, path } = useScope();
  const { termLine, period } = usePeriod();
  const [text, onText] = useTextInAddress('text');
  const found = useStudents(schoolId, periodId, text);
  const { data: students } = found;
  const navigate = useNavigate();
  if (!students || !termLine) return <PageFace queries={[found]} />;
  const blank = students.filter(({ blanks }) => blanks > 0).length;
  return (
    <Page
      headline={
        <>
          <Strong>{counted(students.length, 'student')}</Strong> of {termLine.school.shortName}
          {text
            ? ` ${agreeing(students.length, 'matches')} “${text}”.`
            : blank > 0 && (
                <>
                  ; <Strong tone="warns">{counted(blank, 'student')}</Strong> {agreeing(blank, 'has')} blank grades in{' '}
                  {period?.name}
                </>
              )}
          {!text && '. Choose one to see the transcript.'}
        </>
      }
      actions={
        <input
          type="search"
          aria-label="Name or number"
          placeholder="Family, Given or number"
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
          filterIn={null}
          columns={columns}
          rows={students}
          rowKey={({ id }) => String(id)}
          onOpen={({ id }) => void navigate(path(`students/${id}`))}
          empty={<Empty title="No student matches">Try the beginning of the family name.</Empty>}
        />
      </Panel>
    </Page>
  );
}
