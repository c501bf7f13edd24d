import { isYearLong, yearDivisions, yearLength, type YearDivision } from '#core/calendar';
import type { OpenSchoolRequest } from '#contract/schools';
import { FormDayField } from '../ui/day/form-day-field';
import { SelectField, TextField } from '../ui/field';
import { Panel } from '../ui/panel';
import type { FaultOf } from './fault-of';
import { ProposedPeriods } from './proposed-periods';

type Year = OpenSchoolRequest['year'];

const divisionWords: Readonly<Record<YearDivision, string>> = {
  quarters: 'semesters and quarters',
  trimesters: 'trimesters',
  terms: 'two terms',
};

interface YearFieldsProps {
  readonly year: Year;
  readonly faultOf: FaultOf;
  readonly onChange: (changed: Partial<Year>) => void;
  /** Told of each day whether what is typed for it is no day that it can be. */
  readonly onFault: (field: 'startsOn' | 'endsOn', isWrong: boolean) => void;
}

/** The first year of a school, with the periods that it would have. */
export function YearFields({ year, faultOf, onChange, onFault }: YearFieldsProps) {
  const isLongEnough = isYearLong(year.startsOn, year.endsOn);
  return (
    <Panel label="First year" className="space-y-3 px-4 py-3">
      <h2 className="font-bold">First year</h2>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Name of the year"
          value={year.name}
          fault={faultOf('year.name')}
          onChange={({ target }) => onChange({ name: target.value })}
        />
        <SelectField
          label="Divided into"
          value={year.division}
          onChange={({ target }) =>
            onChange({ division: yearDivisions.find((each) => each === target.value) ?? year.division })
          }
        >
          {yearDivisions.map((each) => (
            <option key={each} value={each}>
              {divisionWords[each]}
            </option>
          ))}
        </SelectField>
        <FormDayField
          label="First day"
          day={year.startsOn}
          onFault={(isWrong) => onFault('startsOn', isWrong)}
          onChange={(startsOn) => onChange({ startsOn })}
        />
        <FormDayField
          key={year.startsOn}
          label="Last day"
          day={year.endsOn}
          onFault={(isWrong) => onFault('endsOn', isWrong)}
          refuse={(day) =>
            !isYearLong(year.startsOn, day)
              ? `from ${yearLength.fewest} to ${yearLength.most} days after the first`
              : undefined
          }
          onChange={(endsOn) => onChange({ endsOn })}
        />
      </div>
      {isLongEnough ? (
        <ProposedPeriods year={year} />
      ) : (
        <p role="alert" className="text-[13px] text-waratah">
          A year lasts from {yearLength.fewest} to {yearLength.most} days.
        </p>
      )}
    </Panel>
  );
}
