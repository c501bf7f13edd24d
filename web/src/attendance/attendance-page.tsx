import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { AttendanceSectionReply } from '#contract/attendance';
import { counted } from '#contract/messages';
import { useMay } from '../shell/access';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { showDay } from '../ui/format';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { MiddleCut } from '../ui/middle-cut';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { FillDisc } from '../ui/state-marks';
import { ImportAttendance } from './import-attendance';
import { useAttendance, useTakesAttendance } from './queries';

/** The sections of a period, those whose attendance was taken longest ago first. */
export function AttendancePage() {
  const { path } = useScope();
  const { period, termLine } = usePeriod();
  const read = useAttendance();
  const navigate = useNavigate();
  const may = useMay();
  const takes = useTakesAttendance();
  const { data: list } = read;
  const rows = useMemo(
    () => (list?.sections ?? []).toSorted((a, b) => (a.lastTaken ?? '').localeCompare(b.lastTaken ?? '')),
    [list],
  );
  const today = list?.today;
  const columns = useMemo(
    (): GridColumn<AttendanceSectionReply>[] => [
      {
        id: 'today',
        header: 'Today',
        width: '72px',
        align: 'center',
        sortBy: ({ lastTaken }) => Number(lastTaken === today),
        cell: ({ lastTaken }) => <FillDisc done={lastTaken === today ? 1 : 0} of={1} isSealed={false} />,
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
        width: '100px',
        sortBy: ({ courseCode }) => courseCode,
        cell: ({ courseCode }) => <span className="figures">{courseCode}</span>,
      },
      {
        id: 'teacher',
        header: 'Teacher',
        width: '200px',
        sortBy: ({ teacher }) => teacher,
        cell: ({ teacher }) => teacher,
      },
      {
        id: 'students',
        header: 'Students',
        width: '90px',
        align: 'right',
        sortBy: ({ students }) => students,
        cell: ({ students }) => <span className="figures">{students}</span>,
      },
      {
        id: 'taken',
        header: 'Days taken',
        width: '140px',
        align: 'right',
        sortBy: ({ taken }) => taken,
        cell: ({ taken, days }) => (
          <span className="figures" title={`${taken} of ${counted(days, 'day')} with classes so far`}>
            {taken} / {days}
          </span>
        ),
      },
      {
        id: 'last',
        header: 'Last taken',
        width: '130px',
        sortBy: ({ lastTaken }) => lastTaken ?? '',
        cell: ({ lastTaken }) =>
          lastTaken === null ? <span className="text-quiet">never</span> : <span>{showDay(lastTaken)}</span>,
      },
    ],
    [today],
  );
  if (!list || !period || !termLine) return <PageFace queries={[read]} />;
  const { shortName } = termLine.school;
  const maySwitch = may('change-shared-set-up');
  const turn = (isOn: boolean) =>
    takes.mutate(isOn, {
      onSuccess: () =>
        toast.success(isOn ? `${shortName} takes attendance.` : `${shortName} takes no attendance any more.`),
      onError: showProblem,
    });
  if (!list.takesAttendance)
    return (
      <Page headline={`${shortName} takes no attendance by day.`}>
        <Panel className="flex-1">
          <Empty title="No attendance here">
            <p>
              Where it is taken, grade sheets propose the last day on which a student came as the last date of
              attendance.
            </p>
            {maySwitch && (
              <Button look="main" className="mt-4" disabled={takes.isPending} onClick={() => turn(true)}>
                Take attendance at {shortName}
              </Button>
            )}
          </Empty>
        </Panel>
      </Page>
    );
  const done = list.sections.filter(({ lastTaken }) => lastTaken === list.today).length;
  const open = ({ sectionId }: AttendanceSectionReply) => void navigate(path(`attendance/${sectionId}`));
  const next = rows.find(({ lastTaken }) => lastTaken !== list.today);
  return (
    <Page
      headline={
        <>
          Attendance of {period.name}: today, {showDay(list.today)}, it is taken in{' '}
          <Strong>
            {done} of {counted(list.sections.length, 'section')}
          </Strong>
          .
        </>
      }
      actions={
        <>
          <Button look="main" writes={false} disabled={!next} onClick={() => next && open(next)}>
            Open the next section
          </Button>
          {may('change-people') && <ImportAttendance />}
          {maySwitch && (
            <Button disabled={takes.isPending} onClick={() => turn(false)}>
              Stop taking attendance
            </Button>
          )}
        </>
      }
      below="A day counts once its register is saved. Grade sheets propose the last day present as the last date of attendance."
    >
      <Panel className="flex min-h-0 flex-1 flex-col">
        <DataGrid
          label="Attendance by section"
          columns={columns}
          rows={rows}
          rowKey={({ sectionId }) => String(sectionId)}
          onOpen={open}
          empty={<Empty title="No section here">None of your sections runs in this period.</Empty>}
        />
      </Panel>
    </Page>
  );
}
