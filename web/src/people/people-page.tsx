import { useCallback, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { personKinds, type PersonField } from '#core/people';
import type { PeopleReply, PersonRowReply } from '#contract/people';
import { agreeing, counted } from '#contract/messages';
import { CellTableDesk } from '../cell-tables/cell-table-desk';
import { TableFilter } from '../cell-tables/table-filter';
import { SetValueBar } from '../cell-tables/set-value-bar';
import { usePlanRows } from '../cell-tables/use-plan-rows';
import { UnsavedWords } from '../cell-tables/unsaved-words';
import type { TableRow } from '../cell-tables/table-look';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { showCount } from '../ui/format';
import { ViewSwitch } from '../ui/field';
import { FigureButton } from '../ui/page';
import { Empty } from '../ui/panel';
import { DuplicatesPage } from './duplicates/duplicates-page';
import { usePeople, usePeopleTable } from './queries';

const views = [
  ['all', 'Everyone'],
  ['duplicates', 'Listed twice'],
] as const;

/** The students and staff of a school, edited as in a spreadsheet. */
export function PeoplePage() {
  const { schoolId } = useScope();
  const { termLine } = usePeriod();
  const people = usePeople(schoolId);
  const { data: reply } = people;
  const [search, setSearch] = useSearchParams();
  const view = search.get('view') === 'duplicates' ? 'duplicates' : 'all';
  const viewSwitch = (
    <ViewSwitch
      label="View"
      views={views}
      chosen={view}
      onChoose={(chosen) => setSearch(chosen === 'all' ? {} : { view: chosen })}
    />
  );
  if (view === 'duplicates') return <DuplicatesPage schoolId={schoolId} viewSwitch={viewSwitch} />;
  if (!reply || !termLine) return <PageFace queries={[people]} />;
  const { shortName } = termLine.school;
  return <PeopleDesk key={schoolId} schoolId={schoolId} schoolName={shortName} reply={reply} viewSwitch={viewSwitch} />;
}

interface DeskProps {
  readonly schoolId: number;
  readonly schoolName: string;
  readonly reply: PeopleReply;
  readonly viewSwitch: ReactNode;
}

function PeopleDesk({ schoolId, schoolName, reply: { people, today }, viewSwitch }: DeskProps) {
  const table = usePeopleTable(schoolId, today);
  const [search, setSearch] = useSearchParams();
  const [text, onText] = useTextInAddress('text');
  const [kind, year] = [search.get('kind'), search.get('year')];
  const isSeatedOnly = search.get('left') === 'seated';
  const show = (wanted: Readonly<Record<string, string>>) => setSearch(wanted, { replace: true });
  const isShown = useCallback(
    ({ cells, reply }: TableRow<PersonField, PersonRowReply>) =>
      (!isSeatedOnly || (reply?.seatsAfterLeaving ?? 0) > 0) &&
      (kind === null || cells.kind === kind) &&
      (year === null || cells.yearGroup === year) &&
      isFound(
        `${cells.number} ${cells.familyName}, ${cells.givenName} ${cells.familyName}, ${cells.preferredName} ${cells.familyName} ${cells.email}`,
        text,
      ),
    [kind, year, isSeatedOnly, text],
  );
  const years = [...new Set(people.map(({ cells }) => cells.yearGroup).filter((each) => each !== ''))];
  const seated = people.filter(({ seatsAfterLeaving }) => seatsAfterLeaving > 0).length;
  const students = people.filter(({ cells }) => cells.kind === 'student').length;
  return (
    <CellTableDesk
      of={table}
      kept={people}
      plan={usePlanRows<PersonField>(`/schools/${schoolId}/people/import`)}
      exportAddress={`/schools/${schoolId}/people/export`}
      headline={(counts) => (
        <>
          {schoolName} has{' '}
          <FigureButton onClick={() => show({ kind: 'student' })}>{counted(students, 'student')}</FigureButton> and{' '}
          <FigureButton onClick={() => show({ kind: 'staff' })}>{showCount(people.length - students)}</FigureButton>{' '}
          staff
          {seated > 0 && (
            <>
              ;{' '}
              <FigureButton tone="warns" onClick={() => show({ left: 'seated' })}>
                {showCount(seated)}
              </FigureButton>{' '}
              left and {agreeing(seated, 'has')} seats beyond that day
            </>
          )}
          <UnsavedWords {...counts} />
        </>
      )}
      moreActions={viewSwitch}
      beginsWith={beginsLike}
      isShown={isShown}
      filter={
        <TableFilter
          choices={[
            {
              label: 'Kind of people shown',
              value: kind ?? '',
              options: [['', 'everybody'], ...personKinds.map((each) => [each, kindWords[each]] as const)],
              onChange: (chosen) => setSearch((before) => searchWith(before, { kind: chosen }), { replace: true }),
            },
            {
              label: 'Year shown',
              value: year ?? '',
              options: [
                ['', 'of every year'],
                ...years.toSorted(byFigure).map((each) => [each, `of year ${each}`] as const),
              ],
              onChange: (chosen) => setSearch((before) => searchWith(before, { year: chosen }), { replace: true }),
            },
          ]}
          label="Name, number or address"
          text={text}
          onText={onText}
        >
          Rows pasted below the last one are new people; with their headings they are looked at first.
        </TableFilter>
      }
      bar={(selected) => (
        <SetValueBar
          look={table.look}
          thing="person"
          selected={selected}
          settable={['yearGroup', 'kind', 'enteredOn', 'leftOn']}
          choices={{ kind: personKinds }}
          whenEmpty="nothing"
        />
      )}
      empty={
        <Empty title={people.length === 0 ? 'Nobody yet' : 'Nobody matches'}>
          {people.length === 0
            ? 'Make the first one with “New person” and paste a whole list there, or import a CSV or XLSX file with columns for family and given name.'
            : 'Choose a figure in the sentence above to see all of them.'}
        </Empty>
      }
    />
  );
}

const kindWords = { student: 'students', staff: 'staff' } as const;

/** A new person is what the one beside them is. */
function beginsLike(beside: TableRow<PersonField, PersonRowReply> | undefined) {
  const { kind = 'student', yearGroup = '' } = beside?.cells ?? {};
  return { kind, yearGroup };
}

function isFound(where: string, text: string): boolean {
  return where.toLowerCase().includes(text.trim().toLowerCase());
}

const byFigure = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });
