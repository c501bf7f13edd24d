import { useCallback } from 'react';
import { useSearchParams } from 'react-router';
import { personKinds, type PersonField } from '#core/people';
import type { PeopleReply, PersonRowReply } from '#contract/people';
import { counted } from '#contract/messages';
import { CellTableDesk } from '../cell-tables/cell-table-desk';
import { SetValueBar } from '../cell-tables/set-value-bar';
import { UnsavedWords } from '../cell-tables/unsaved-words';
import type { TableRow } from '../cell-tables/table-look';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { Select } from '../ui/choice/select';
import { showCount } from '../ui/format';
import { FigureButton } from '../ui/page';
import { Empty } from '../ui/panel';
import { personLook } from './person-look';
import { usePeople, usePeopleTable, usePlanPeopleImport } from './queries';

/** The students and staff of a school, edited as in a spreadsheet. */
export function PeoplePage() {
  const { schoolId } = useScope();
  const { termLine } = usePeriod();
  const people = usePeople(schoolId);
  const { data: reply } = people;
  if (!reply || !termLine) return <PageFace queries={[people]} />;
  return <PeopleDesk key={schoolId} schoolId={schoolId} schoolName={termLine.school.shortName} reply={reply} />;
}

interface DeskProps {
  readonly schoolId: number;
  readonly schoolName: string;
  readonly reply: PeopleReply;
}

function PeopleDesk({ schoolId, schoolName, reply: { people } }: DeskProps) {
  const [search, setSearch] = useSearchParams();
  const [text, onText] = useTextInAddress('text');
  const [kind, year] = [search.get('kind'), search.get('year')];
  const show = (wanted: Readonly<Record<string, string>>) => setSearch(wanted, { replace: true });
  const isShown = useCallback(
    ({ cells }: TableRow<PersonField, PersonRowReply>) =>
      (kind === null || cells.kind === kind) &&
      (year === null || cells.yearGroup === year) &&
      isFound(`${cells.number} ${cells.familyName}, ${cells.givenName} ${cells.familyName} ${cells.email}`, text),
    [kind, year, text],
  );
  const years = [...new Set(people.map(({ cells }) => cells.yearGroup).filter((each) => each !== ''))];
  const students = people.filter(({ cells }) => cells.kind === 'student').length;
  return (
    <CellTableDesk
      of={usePeopleTable(schoolId)}
      kept={people}
      plan={usePlanPeopleImport(schoolId)}
      exportAddress={`/schools/${schoolId}/people/export`}
      headline={(counts) => (
        <>
          {schoolName} has{' '}
          <FigureButton onClick={() => show({ kind: 'student' })}>{counted(students, 'student')}</FigureButton> and{' '}
          <FigureButton onClick={() => show({ kind: 'staff' })}>{showCount(people.length - students)}</FigureButton>{' '}
          staff
          <UnsavedWords {...counts} />
        </>
      )}
      beginsWith={beginsLike}
      isShown={isShown}
      filter={
        <div className="flex flex-wrap items-center gap-2 border-b border-hairline px-4 py-1.5 text-[13px]">
          <Select
            aria-label="Kind of people shown"
            value={kind ?? ''}
            className="h-7 rounded border border-control bg-surface px-1.5"
            onChange={({ target }) =>
              setSearch((before) => searchWith(before, { kind: target.value }), { replace: true })
            }
          >
            <option value="">everybody</option>
            {personKinds.map((each) => (
              <option key={each} value={each}>
                {each === 'student' ? 'students' : 'staff'}
              </option>
            ))}
          </Select>
          <Select
            aria-label="Year shown"
            value={year ?? ''}
            className="h-7 rounded border border-control bg-surface px-1.5"
            onChange={({ target }) =>
              setSearch((before) => searchWith(before, { year: target.value }), { replace: true })
            }
          >
            <option value="">of every year</option>
            {years.toSorted(byFigure).map((each) => (
              <option key={each} value={each}>
                of year {each}
              </option>
            ))}
          </Select>
          <input
            type="search"
            aria-label="Name, number or address"
            placeholder="name, number or address"
            value={text}
            onChange={(event) => onText(event.target.value)}
            className="h-7 w-[220px] rounded border border-control bg-surface px-2"
          />
          <span className="text-[12px] text-quiet">
            Rows pasted below the last one are new people; with their headings they are looked at first.
          </span>
        </div>
      }
      bar={(selected) => (
        <SetValueBar
          look={personLook}
          thing="person"
          selected={selected}
          settable={['yearGroup', 'kind']}
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

/** A new person is what the one beside them is. */
function beginsLike(beside: TableRow<PersonField, PersonRowReply> | undefined) {
  const { kind = 'student', yearGroup = '' } = beside?.cells ?? {};
  return { kind, yearGroup };
}

function isFound(where: string, text: string): boolean {
  return where.toLowerCase().includes(text.trim().toLowerCase());
}

const byFigure = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });
