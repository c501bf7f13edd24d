import { useEffect, useRef, useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { isYearLong, localTime, usualYear } from '#core/calendar';
import type { OpenSchoolRequest } from '#contract/schools';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { Button } from '../ui/button';
import { DistrictFields } from './district-fields';
import { useOpenSchool } from './queries';
import { SchoolFields } from './school-fields';
import { YearFields } from './year-fields';

const ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Makes a school with its first year by hand; the first one also names the district. */
export function OpenSchoolForm({ isFirst }: { isFirst: boolean }) {
  const [typed, setTyped] = useState<OpenSchoolRequest>(() => ({
    district: isFirst ? { name: '', timeZone: ownZone } : null,
    name: '',
    shortName: '',
    code: '',
    year: { ...usualYear(localTime(ownZone, new Date()).day), division: 'quarters' },
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
  const faultOf = (field: string) => problem?.fault(field);
  const noteFault = (field: string, isWrong: boolean) =>
    setUnclear((before) => new Set(isWrong ? [...before, field] : [...before].filter((each) => each !== field)));
  const isWhole =
    [name, shortName, code, year.name, ...(district ? [district.name] : [])].every((text) => text.trim() !== '') &&
    isYearLong(year.startsOn, year.endsOn) &&
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
          <DistrictFields district={district} faultOf={faultOf} onChange={(changed) => change({ district: changed })} />
        )}
        <SchoolFields school={typed} faultOf={faultOf} onChange={change} />
      </div>
      <YearFields
        year={year}
        faultOf={faultOf}
        onChange={(changed) => change({ year: { ...year, ...changed } })}
        onFault={noteFault}
      />
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
