import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { EnrollmentField } from '#core/sections';
import { mostMoved, type EnrollmentRowReply, type EnrollmentsReply } from '#contract/sections';
import { counted } from '#contract/messages';
import { CellTableDesk } from '../cell-tables/cell-table-desk';
import { TableFilter } from '../cell-tables/table-filter';
import { SetValueBar } from '../cell-tables/set-value-bar';
import type { TableRow } from '../cell-tables/table-look';
import { usePlanRows } from '../cell-tables/use-plan-rows';
import { UnsavedWords } from '../cell-tables/unsaved-words';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { Button } from '../ui/button';
import { dayOfInstant } from '../ui/day/zone-time';
import { Figure, FigureButton } from '../ui/page';
import { Empty } from '../ui/panel';
import { MoveDialog } from './moving/move-dialog';
import { seatsOf, useEnrollments, useEnrollmentTable, useSections } from './queries';
import { SplitOffButton } from './reshaping/reshaping-buttons';
import { SplitSectionDialog } from './reshaping/split-section-dialog';

/** Who sits in the sections of a year, or in one of them, edited as in a spreadsheet. */
export function EnrollmentsPage() {
  const [search] = useSearchParams();
  const { termLine } = usePeriod();
  const sectionId = Number(search.get('section')) || null;
  const enrollments = useEnrollments(sectionId);
  const { data: reply } = enrollments;
  if (!reply || !termLine) return <PageFace queries={[enrollments]} />;
  const { shortName } = termLine.school;
  return (
    <EnrollmentsDesk key={`${reply.yearId}/${sectionId}`} schoolName={shortName} sectionId={sectionId} reply={reply} />
  );
}

interface DeskProps {
  readonly schoolName: string;
  /** Null for all of the year. */
  readonly sectionId: number | null;
  readonly reply: EnrollmentsReply;
}

function EnrollmentsDesk({ schoolName, sectionId, reply }: DeskProps) {
  const { schoolId, periodId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const [text, onText] = useTextInAddress('text');
  const state = search.get('state');
  const table = useEnrollmentTable(reply, sectionId);
  const { enrollments, sections } = reply;
  const { students } = table.directory;
  const isShown = useCallback(
    ({ cells }: TableRow<EnrollmentField, EnrollmentRowReply>) =>
      (state === null || (state === 'left') === (cells.withdrawnOn !== '')) &&
      `${students.shown(cells.student, (listed) => listed)} ${cells.section}`
        .toLowerCase()
        .includes(text.trim().toLowerCase()),
    [state, text, students],
  );
  const show = (wanted: Readonly<Record<string, string>>) =>
    setSearch((before) => searchWith(before, wanted), { replace: true });
  const own = sectionId === null ? undefined : table.directory.sections.textOf(sectionId);
  const left = enrollments.filter(({ cells }) => cells.withdrawnOn !== '').length;
  const [moving, setMoving] = useState<number[]>([]);
  const [splitting, setSplitting] = useState<readonly EnrollmentRowReply[]>([]);
  const splitSection = sections.find(({ id }) => id === splitting[0]?.sectionId);
  const { data: staffed } = useSections();
  const { termLine } = usePeriod();
  const today = termLine && dayOfInstant(termLine.now);
  const seated = new Set(enrollments.map(({ cells }) => cells.student)).size;
  const seats = seatsOf(periodId, sectionId);
  return (
    <>
      {moving.length > 0 && today && (
        <MoveDialog
          schoolId={schoolId}
          enrollmentIds={moving}
          sections={sections.map((section) => [section, table.directory.sections.textOf(section.id)] as const)}
          today={today}
          onClose={() => setMoving([])}
        />
      )}
      {splitSection && today && staffed && (
        <SplitSectionDialog
          schoolId={schoolId}
          section={splitSection}
          name={table.directory.sections.textOf(splitSection.id)}
          enrollmentIds={splitting.map(({ id }) => id)}
          staff={staffed.staff}
          today={today}
          onClose={() => setSplitting([])}
        />
      )}
      <CellTableDesk
        of={table}
        kept={enrollments}
        plan={usePlanRows<EnrollmentField>(`/schools/${schoolId}/enrollments/import${seats}`)}
        exportAddress={`/schools/${schoolId}/enrollments/export${seats}`}
        headline={(counts) => (
          <>
            {own === undefined ? (
              <>
                {counted(seated, 'student')} of {schoolName} have{' '}
                <FigureButton onClick={() => show({ state: '' })}>{counted(enrollments.length, 'seat')}</FigureButton>{' '}
                in <Figure to={path('sections')}>{counted(sections.length, 'section')}</Figure>
              </>
            ) : (
              <>
                <Figure to={path('sections')}>{own}</Figure> has{' '}
                <FigureButton onClick={() => show({ state: '' })}>
                  {counted(enrollments.length, 'student')}
                </FigureButton>
              </>
            )}
            {left > 0 && (
              <>
                , <FigureButton onClick={() => show({ state: 'left' })}>{left}</FigureButton> of them withdrawn
              </>
            )}
            {search.get('split') !== null && '; select who goes to a new section and choose Split'}
            <UnsavedWords {...counts} />
          </>
        )}
        beginsWith={(beside) => ({ section: own ?? beside?.cells.section ?? '' })}
        isShown={isShown}
        filter={
          <TableFilter
            choices={[
              {
                label: 'Section shown',
                value: sectionId === null ? '' : String(sectionId),
                options: [
                  ['', 'of every section'],
                  ...sections.map(({ id }) => [String(id), table.directory.sections.textOf(id)] as const),
                ],
                onChange: (section) => show({ section }),
              },
              {
                label: 'Enrollments shown',
                value: state ?? '',
                options: [
                  ['', 'seated and withdrawn'],
                  ['sits', 'seated'],
                  ['left', 'withdrawn'],
                ],
                onChange: (chosen) => show({ state: chosen }),
              },
            ]}
            label="Student or section"
            text={text}
            onText={onText}
          >
            A student is named by number, name or e-mail.
          </TableFilter>
        }
        bar={(selected) => (
          <SetValueBar
            look={table.look}
            thing="enrollment"
            selected={selected}
            settable={['withdrawnOn', 'enteredOn']}
            choices={{}}
            whenEmpty="nothing"
          >
            <MoveButton
              selected={selected.rows.flatMap(({ reply: kept }) => (kept ? [kept.id] : []))}
              canMove={selected.rows.every(({ changed }) => changed.size === 0)}
              onMove={setMoving}
            />
            <SplitOffButton rows={selected.rows} onSplit={setSplitting} />
          </SetValueBar>
        )}
        empty={
          <Empty title={enrollments.length === 0 ? 'Nobody is enrolled yet' : 'No matching enrollment'}>
            {sections.length === 0 ? (
              <>
                Students sit in sections: <Figure to={path('sections')}>make the sections</Figure> first.
              </>
            ) : enrollments.length === 0 ? (
              'Begin with “New enrollment” and paste the numbers of all students into its column, or import a CSV or XLSX file with columns for section and student.'
            ) : (
              'Choose the figure in the sentence above to see all of them.'
            )}
          </Empty>
        }
      />
    </>
  );
}

interface MoveButtonProps {
  readonly selected: number[];
  /** What is typed and not saved would be moved as it was before. */
  readonly canMove: boolean;
  readonly onMove: (enrollmentIds: number[]) => void;
}

function MoveButton({ selected, canMove, onMove }: MoveButtonProps) {
  return (
    <Button
      writes
      disabled={!canMove || selected.length === 0 || selected.length > mostMoved}
      title={
        canMove
          ? selected.length > mostMoved
            ? `At most ${mostMoved} at a time.`
            : undefined
          : 'Save what you changed in these rows first.'
      }
      onClick={() => onMove(selected)}
    >
      Move…
    </Button>
  );
}
