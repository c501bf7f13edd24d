import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import { isWithin, type Day } from '#core/calendar';
import { daysOfSection, type SectionField } from '#core/sections';
import type { SectionRowReply, SectionsReply } from '#contract/sections';
import { agreeing, counted } from '#contract/messages';
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
import { Figure, FigureButton } from '../ui/page';
import { Empty } from '../ui/panel';
import { dayOfInstant } from '../ui/day/zone-time';
import { useOwnView } from '../ui/own-view';
import { nextOf } from './next-section';
import { hasTooMany } from './section-look';
import { useSections, useSectionTable } from './queries';
import { MergeButton, SplitButton } from './reshaping/reshaping-buttons';
import { MergeSectionsDialog } from './reshaping/merge-sections-dialog';

/** The sections of a year, edited as in a spreadsheet. */
export function SectionsPage() {
  const { termLine } = usePeriod();
  const sections = useSections();
  const { data: reply } = sections;
  if (!reply || !termLine) return <PageFace queries={[sections]} />;
  return (
    <SectionsDesk
      key={reply.yearId}
      schoolName={termLine.school.shortName}
      reply={reply}
      today={dayOfInstant(termLine.now)}
    />
  );
}

interface DeskProps {
  readonly schoolName: string;
  readonly reply: SectionsReply;
  readonly today: Day;
}

function SectionsDesk({ schoolName, reply, today }: DeskProps) {
  const { schoolId, periodId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const [text, onText] = useTextInAddress('text');
  const period = search.get('runs');
  const isEmptyOnly = search.get('empty') !== null;
  const isOverfullOnly = search.get('overfull') !== null;
  const onlyRunning = useOwnView((view) => view.onlyRunning);
  const anyDay = onlyRunning ? { on: 'any' } : undefined;
  const isRunningOnly = (search.get('on') ?? (onlyRunning ? 'today' : 'any')) === 'today';
  const { sections, courses, staff, periods, yearId } = reply;
  const table = useSectionTable(reply);
  const { directory } = table;
  const show = (wanted: Readonly<Record<string, string>> = {}) => setSearch(wanted, { replace: true });
  const isShown = useCallback(
    ({ cells, reply: kept }: TableRow<SectionField, SectionRowReply>) =>
      (period === null || cells.period === (period === 'year' ? '' : period)) &&
      (!isEmptyOnly || kept?.students === 0) &&
      (!isOverfullOnly || (kept !== undefined && hasTooMany(kept))) &&
      // What is new is seen until it is saved.
      (!isRunningOnly || kept === undefined || isWithin(today, daysOfSection(directory, cells))) &&
      `${cells.course} ${cells.number} ${directory.staff.shown(cells.teacher, (listed) => listed)}`
        .toLowerCase()
        .includes(text.trim().toLowerCase()),
    [period, isEmptyOnly, isOverfullOnly, isRunningOnly, directory, today, text],
  );
  const yearName = periods.find(({ id }) => id === yearId)?.names[0] ?? '';
  const within = periods.filter(({ id }) => id !== yearId).map(({ names }) => names[0]!);
  const taught = new Set(sections.map(({ cells }) => cells.teacher)).size;
  const overfull = sections.filter(hasTooMany).length;
  const unseated = sections.filter(({ students }) => students === 0).length;
  const [merging, setMerging] = useState<readonly SectionRowReply[]>([]);
  const choices = {
    teacher: staff.map(({ id }) => table.directory.staff.textOf(id)),
    period: ['', ...within],
  };
  return (
    <>
      {merging.length > 0 && (
        <MergeSectionsDialog schoolId={schoolId} sections={merging} today={today} onClose={() => setMerging([])} />
      )}
      <CellTableDesk
        of={table}
        kept={sections}
        plan={usePlanRows<SectionField>(`/schools/${schoolId}/sections/import?period=${periodId}`)}
        exportAddress={`/schools/${schoolId}/sections/export?period=${periodId}`}
        headline={(counts) => (
          <>
            {schoolName} runs{' '}
            <FigureButton onClick={() => show(anyDay)}>{counted(sections.length, 'section')}</FigureButton> in{' '}
            {yearName}, taught by {counted(taught, 'teacher')}
            {unseated > 0 && (
              <>
                ; nobody sits in{' '}
                <FigureButton tone="warns" onClick={() => show({ empty: 'yes', ...anyDay })}>
                  {counted(unseated, 'section')}
                </FigureButton>
              </>
            )}
            {overfull > 0 && (
              <>
                ;{' '}
                <FigureButton tone="warns" onClick={() => show({ overfull: 'yes', ...anyDay })}>
                  {counted(overfull, 'section')}
                </FigureButton>{' '}
                {agreeing(overfull, 'has')} more students than seats
              </>
            )}
            <UnsavedWords {...counts} />
          </>
        )}
        beginsWith={(beside) => nextOf(beside?.cells, sections)}
        isShown={isShown}
        filter={
          <TableFilter
            choices={[
              {
                label: 'Period shown',
                value: period ?? '',
                options: [
                  ['', 'of every period'],
                  ['year', 'of the whole year'],
                  ...within.map((name) => [name, name] as const),
                ],
                onChange: (runs) => setSearch((before) => searchWith(before, { runs }), { replace: true }),
              },
              {
                label: 'Day shown',
                value: isRunningOnly ? 'today' : 'any',
                options: [
                  ['any', 'on any day'],
                  ['today', 'that run today'],
                ],
                onChange: (on) => setSearch((before) => searchWith(before, { on }), { replace: true }),
              },
            ]}
            label="Course or teacher"
            text={text}
            onText={onText}
          >
            A course is named by its title or code, a teacher by name, number or e-mail.
          </TableFilter>
        }
        bar={(selected) => (
          <SetValueBar
            look={table.look}
            thing="section"
            selected={selected}
            settable={['teacher', 'period', 'startsOn', 'endsOn', 'seats']}
            choices={choices}
            whenEmpty="the whole of it"
          >
            <MergeButton selected={selected.rows} onMerge={setMerging} />
            <SplitButton selected={selected.rows} />
          </SetValueBar>
        )}
        empty={
          <Empty title={sections.length === 0 ? 'No section yet' : 'No matching section'}>
            {courses.length === 0 ? (
              <>
                A section is of a course: <Figure to={path('courses')}>make the courses</Figure> first.
              </>
            ) : sections.length === 0 ? (
              'Make the first one with “New section” and paste a whole list there, or import a CSV or XLSX file with columns for course, section and teacher.'
            ) : (
              'Choose the figure in the sentence above to see all of them.'
            )}
          </Empty>
        }
      />
    </>
  );
}
