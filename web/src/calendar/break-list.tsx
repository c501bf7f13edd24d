import { Plus, Trash2 } from 'lucide-react';
import { daysBetween, type Day } from '#core/calendar';
import type { BreakBody, CalendarReply, PeriodBody } from '#contract/calendar';
import { counted } from '#contract/messages';
import { DayField } from '../ui/day/day-field';
import { changeCalendar, type CalendarBody } from './calendar-drafts';
import { newId, yearBeside } from './calendar-view';

const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** The breaks of the year and the days of the week with classes. */
export function BreakList({ calendar, body, year }: { calendar: CalendarReply; body: CalendarBody; year: PeriodBody }) {
  const own = body.breaks.filter((each) => yearBeside({ periods: [year] }, each));
  const change = (id: number, changed: Partial<BreakBody>) =>
    changeCalendar(calendar, { breaks: body.breaks.map((each) => (each.id === id ? { ...each, ...changed } : each)) });
  const add = () => {
    const startsOn: Day = year.startsOn;
    const added = { id: newId(body.breaks), name: 'Break', startsOn, endsOn: startsOn };
    changeCalendar(calendar, { breaks: [...body.breaks, added] });
  };
  return (
    <div className="px-3 py-2.5 text-[13px]">
      <div className="mb-1.5 flex items-center gap-3">
        <h2 className="text-[14px] font-bold">Days without classes</h2>
        <div className="ml-auto flex gap-1" role="group" aria-label="Days of the week with classes">
          {weekdayNames.map((name, index) => {
            const isOn = body.weekdays.includes(index + 1);
            const rest = body.weekdays.filter((weekday) => weekday !== index + 1);
            return (
              <button
                key={name}
                type="button"
                aria-pressed={isOn}
                title={isOn ? `${name}: classes` : `${name}: no classes`}
                onClick={() =>
                  changeCalendar(calendar, { weekdays: isOn ? rest : [...rest, index + 1].toSorted((a, b) => a - b) })
                }
                className="h-6 w-8 rounded border border-hairline text-[11px] text-quiet aria-pressed:border-eucalypt aria-pressed:bg-eucalypt-soft aria-pressed:font-bold aria-pressed:text-eucalypt"
              >
                {name}
              </button>
            );
          })}
        </div>
      </div>
      <table className="w-full table-fixed">
        <tbody>
          {own.map(({ id, name, startsOn, endsOn }) => (
            <tr key={id} className="border-t border-hairline">
              <td>
                <input
                  aria-label={`Name of ${name}`}
                  value={name}
                  maxLength={40}
                  onChange={(event) => change(id, { name: event.target.value })}
                  className="h-[28px] w-full rounded-[3px] border border-transparent bg-transparent px-1.5 hover:border-hairline focus:border-control focus:bg-surface"
                />
              </td>
              <td className="w-[104px]">
                <DayField
                  label={`First day of ${name}`}
                  day={startsOn}
                  onChange={(day) => change(id, { startsOn: day, ...(day > endsOn ? { endsOn: day } : {}) })}
                />
              </td>
              <td className="w-[104px]">
                <DayField label={`Last day of ${name}`} day={endsOn} onChange={(day) => change(id, { endsOn: day })} />
              </td>
              <td className="w-[58px] text-right text-quiet">
                {counted(Math.max(0, daysBetween(startsOn, endsOn) + 1), 'day')}
              </td>
              <td className="w-[26px] text-right">
                <button
                  type="button"
                  aria-label={`Remove ${name}`}
                  onClick={() => changeCalendar(calendar, { breaks: body.breaks.filter((each) => each.id !== id) })}
                  className="rounded p-0.5 text-quiet hover:bg-waratah-soft hover:text-waratah"
                >
                  <Trash2 size={13} />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        onClick={add}
        className="mt-1 flex items-center gap-1.5 font-semibold text-eucalypt hover:underline"
      >
        <Plus size={14} aria-hidden /> Add a break
      </button>
    </div>
  );
}
