import { useEffect, useRef, useState, type FormEvent, type ReactNode } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import {
  addDays,
  daysBetween,
  localTime,
  yearDivisions,
  yearLength,
  type Day,
  type YearDivision,
} from '#core/calendar';
import type { OpenSchoolRequest } from '#contract/schools';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { Button } from '../ui/button';
import { DayField } from '../ui/day/day-field';
import { SelectField, TextField } from '../ui/field';
import { Panel } from '../ui/panel';
import { ProposedPeriods } from './proposed-periods';
import { useOpenSchool } from './queries';

const divisionWords: Readonly<Record<YearDivision, string>> = {
  quarters: 'semesters and quarters',
  trimesters: 'trimesters',
  terms: 'two terms',
};

const ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A school year that begins in the month that comes, or has just begun. */
function usualYear(today: Day): OpenSchoolRequest['year'] {
  const first = Number(today.slice(0, 4)) - (today.slice(5) < '06-01' ? 1 : 0);
  return {
    name: `${first}–${String(first + 1).slice(2)}`,
    startsOn: `${first}-09-01` as Day,
    endsOn: `${first + 1}-06-30` as Day,
    division: 'quarters',
  };
}

/** Makes a school with its first year by hand; the first one also names the district. */
export function OpenSchoolForm({ isFirst }: { isFirst: boolean }) {
  const [typed, setTyped] = useState<OpenSchoolRequest>(() => ({
    district: isFirst ? { name: '', timeZone: ownZone } : null,
    name: '',
    shortName: '',
    code: '',
    year: usualYear(localTime(ownZone, new Date()).day),
  }));
  const [unclear, setUnclear] = useState<ReadonlySet<string>>(new Set());
  const open = useOpenSchool();
  const navigate = useNavigate();
  const client = useQueryClient();
  const isOpened = useRef(false);
  // All is asked for again once this page is gone: the first page would lead elsewhere as soon as it sees a school.
  useEffect(
    () => () => {
      if (isOpened.current) void client.invalidateQueries();
    },
    [client],
  );
  const tellOfChange = useTellOfChange();
  const problem = open.error instanceof ProblemError ? open.error : undefined;
  const { district, name, shortName, code, year } = typed;
  const change = (changed: Partial<OpenSchoolRequest>) => setTyped({ ...typed, ...changed });
  const changeYear = (changed: Partial<OpenSchoolRequest['year']>) => change({ year: { ...year, ...changed } });
  const noteFault = (field: string) => (isWrong: boolean) =>
    setUnclear((before) => new Set(isWrong ? [...before, field] : [...before].filter((each) => each !== field)));
  const days = daysBetween(year.startsOn, year.endsOn);
  const hasPeriods = days >= yearLength.fewest && days <= yearLength.most;
  const isWhole =
    [name, shortName, code, year.name, ...(district ? [district.name] : [])].every((text) => text.trim() !== '') &&
    hasPeriods &&
    unclear.size === 0;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!isWhole || open.isPending) return;
    open.mutate(typed, {
      onSuccess(after) {
        isOpened.current = true;
        tellOfChange(`${shortName} is open.`, after);
        void navigate(`/school/${after.schoolId}/period/${after.periodId}/people`);
      },
    });
  };
  return (
    <form onSubmit={submit} className="grid gap-3.5 min-[900px]:grid-cols-2">
      <div className="space-y-3.5">
        {district && (
          <Panel label="District" className="space-y-3 px-4 py-3">
            <h2 className="font-bold">District</h2>
            <TextField
              label="Name of the district"
              value={district.name}
              fault={problem?.fault('district.name')}
              onChange={({ target }) => change({ district: { ...district, name: target.value } })}
            />
            <SelectField
              label="Time zone"
              value={district.timeZone}
              fault={problem?.fault('district.timeZone')}
              onChange={({ target }) => change({ district: { ...district, timeZone: target.value } })}
            >
              {zonesWith(district.timeZone).map((zone) => (
                <option key={zone} value={zone}>
                  {zone}
                </option>
              ))}
            </SelectField>
          </Panel>
        )}
        <Panel label="School" className="space-y-3 px-4 py-3">
          <h2 className="font-bold">School</h2>
          <TextField
            label="Name of the school"
            value={name}
            fault={problem?.fault('name')}
            onChange={({ target }) => change({ name: target.value })}
          />
          <div className="grid grid-cols-2 gap-3">
            <TextField
              label="Short name"
              placeholder="as the top of every page shows it"
              value={shortName}
              fault={problem?.fault('shortName')}
              onChange={({ target }) => change({ shortName: target.value })}
            />
            <TextField
              label="Code"
              placeholder="for files, such as UPS"
              value={code}
              fault={problem?.fault('code')}
              onChange={({ target }) => change({ code: target.value.trim() })}
            />
          </div>
        </Panel>
      </div>
      <Panel label="First year" className="space-y-3 px-4 py-3">
        <h2 className="font-bold">First year</h2>
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label="Name of the year"
            value={year.name}
            fault={problem?.fault('year.name')}
            onChange={({ target }) => changeYear({ name: target.value })}
          />
          <SelectField
            label="Divided into"
            value={year.division}
            onChange={({ target }) =>
              changeYear({ division: yearDivisions.find((each) => each === target.value) ?? year.division })
            }
          >
            {yearDivisions.map((each) => (
              <option key={each} value={each}>
                {divisionWords[each]}
              </option>
            ))}
          </SelectField>
          <Labelled words="First day">
            <DayField
              label="First day"
              day={year.startsOn}
              onFault={noteFault('startsOn')}
              onChange={(startsOn) => changeYear({ startsOn })}
            />
          </Labelled>
          <Labelled words="Last day">
            <DayField
              key={year.startsOn}
              label="Last day"
              day={year.endsOn}
              onFault={noteFault('endsOn')}
              refuse={(day) =>
                day < addDays(year.startsOn, yearLength.fewest) || day > addDays(year.startsOn, yearLength.most)
                  ? `from ${yearLength.fewest} to ${yearLength.most} days after the first`
                  : undefined
              }
              onChange={(endsOn) => changeYear({ endsOn })}
            />
          </Labelled>
        </div>
        {hasPeriods ? (
          <ProposedPeriods year={year} />
        ) : (
          <p role="alert" className="text-[13px] text-waratah">
            A year lasts from {yearLength.fewest} to {yearLength.most} days.
          </p>
        )}
      </Panel>
      <div className="flex items-center gap-3 min-[900px]:col-span-2">
        <Button look="main" type="submit" disabled={!isWhole || open.isPending}>
          Open the school
        </Button>
        {problem && problem.problem.errors.length === 0 && (
          <p role="alert" className="text-waratah">
            {problem.problem.detail}
          </p>
        )}
        <span className="text-[13px] text-quiet">
          Afterwards come people and courses. The year can be changed under Calendar.
        </span>
      </div>
    </form>
  );
}

/** A day with its words over it, as the other fields have theirs; the field bears the same name. */
function Labelled({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div>
      <span aria-hidden className="mb-1 block text-[13px] font-semibold">
        {words}
      </span>
      <div className="min-h-9 rounded-md border border-control bg-surface px-1 py-0.5">{children}</div>
    </div>
  );
}

/** All that the browser knows, with the one that is chosen. */
function zonesWith(chosen: string): readonly string[] {
  return [...new Set([chosen, 'UTC', ...Intl.supportedValuesOf('timeZone')])].toSorted();
}
