import { Link } from 'react-router';
import type { DifferingReply } from '#contract/calculation';
import { agreeing, counted } from '#contract/messages';
import { AwaitedPage } from '../../shell/awaited-page';
import { useScope } from '../../shell/scope';
import { DataGrid, type GridColumn } from '../../ui/grid/data-grid';
import { showPercent } from '../../ui/format';
import { OnPoint } from '../../ui/on-point';
import { Page, Strong } from '../../ui/page';
import { Empty, Panel } from '../../ui/panel';
import { useDiffering } from '../queries';

interface DifferingDeskProps {
  readonly periodName: string;
  readonly viewSwitch: React.ReactNode;
}

/** Posted grades that are no longer what their grade books come to. They stay until somebody posts again. */
export function DifferingDesk(props: DifferingDeskProps) {
  const { periodId } = useScope();
  return (
    <AwaitedPage queries={[useDiffering(periodId)] as const}>
      {(rows) => <Differing {...props} rows={rows} />}
    </AwaitedPage>
  );
}

function Differing({ periodName, viewSwitch, rows }: DifferingDeskProps & { rows: readonly DifferingReply[] }) {
  const { path } = useScope();
  const columns: readonly GridColumn<DifferingReply>[] = [
    {
      id: 'student',
      header: 'Student',
      width: '240px',
      sortBy: ({ student }) => student,
      cell: ({ student, sectionId, itemId, enrollmentId }) => (
        <Link
          to={path(`grade-sheets/${sectionId}/${itemId}?student=${enrollmentId}`)}
          className="font-semibold text-eucalypt hover:underline"
        >
          {student}
        </Link>
      ),
    },
    { id: 'section', header: 'Section', sortBy: ({ section }) => section, cell: ({ section }) => section },
    {
      id: 'posted',
      header: 'Posted',
      width: '110px',
      align: 'right',
      sortBy: ({ posted }) => Number(posted),
      cell: ({ posted }) => <OnPoint text={showPercent(posted)} decimals={2} />,
    },
    {
      id: 'calculated',
      header: 'The book says',
      width: '130px',
      align: 'right',
      sortBy: ({ calculated }) => Number(calculated),
      cell: ({ calculated }) => <OnPoint className="font-bold" text={showPercent(calculated)} decimals={2} />,
    },
    {
      id: 'difference',
      header: 'Difference',
      width: '110px',
      align: 'right',
      sortBy: differenceOf,
      cell: (row) => <OnPoint text={signed(differenceOf(row))} decimals={2} />,
    },
  ];
  return (
    <Page
      headline={
        rows.length === 0 ? (
          <>Every posted grade of {periodName} agrees with its grade book, wherever there is one.</>
        ) : (
          <>
            <Strong tone="warns">{counted(rows.length, 'posted grade')}</Strong> of {periodName}{' '}
            {agreeing(rows.length, 'is')} not what the grade book computes.{' '}
            {rows.length === 1 ? 'It stays' : 'They stay'} as posted until someone posts again.
          </>
        )
      }
      aside={viewSwitch}
    >
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        <DataGrid
          label="Posted grades that differ"
          columns={columns}
          rows={rows}
          rowKey={({ enrollmentId, itemId }) => `${enrollmentId}/${itemId}`}
          empty={<Empty title="None differs">A changed score, policy or scale never changes what is posted.</Empty>}
        />
      </Panel>
    </Page>
  );
}

/** Percents have two digits at most here; what floats add beyond them goes. */
function differenceOf({ posted, calculated }: DifferingReply): number {
  return Math.round((Number(calculated) - Number(posted)) * 100) / 100;
}

function signed(difference: number): string {
  return `${difference < 0 ? '−' : '+'}${showPercent(String(Math.abs(difference)))}`;
}
