import { Lock, Plus, Trash2 } from 'lucide-react';
import { moveEdge, type Day, type PeriodEdge } from '#core/calendar';
import type { CalendarReply, PeriodBody } from '#contract/calendar';
import { listed, counted, agreeing } from '#contract/messages';
import { DayField } from '../ui/day/day-field';
import { showCount, showDay } from '../ui/format';
import { changeCalendar, type CalendarBody } from './calendar-drafts';
import { newId, withoutPeriod, type PeriodView } from './calendar-view';

interface PeriodTableProps {
  readonly calendar: CalendarReply;
  readonly body: CalendarBody;
  readonly views: readonly PeriodView[];
  readonly chosenId: number | undefined;
  readonly onChoose: (periodId: number) => void;
}

/** The periods of the year to type in: name, first and last day, and what follows from them. */
export function PeriodTable({ calendar, body, views, chosenId, onChoose }: PeriodTableProps) {
  const change = (id: number, changed: Partial<PeriodBody>) =>
    changeCalendar(calendar, {
      periods: body.periods.map((each) => (each.id === id ? { ...each, ...changed } : each)),
    });
  const move = (id: number, edge: PeriodEdge, day: Day) =>
    changeCalendar(calendar, { periods: moveEdge(body, id, edge, day) });
  const add = (parent: PeriodBody) => {
    const id = newId(body.periods);
    const siblings = body.periods.filter(({ parentId }) => parentId === parent.id);
    const kind = siblings[0]?.kind ?? (parent.kind === 'year' ? 'semester' : 'quarter');
    const last = siblings
      .map(({ endsOn }) => endsOn)
      .toSorted()
      .at(-1);
    const startsOn = last && last < parent.endsOn ? last : parent.startsOn;
    const name = `${kind[0]!.toUpperCase()}${kind.slice(1)} ${siblings.length + 1}`;
    const added = { id, parentId: parent.id, kind, name, startsOn, endsOn: parent.endsOn };
    changeCalendar(calendar, { periods: [...body.periods, added] });
    onChoose(id);
  };
  return (
    <table className="w-full table-fixed text-[13px]">
      <thead>
        <tr className="text-quiet [&_th]:h-8 [&_th]:px-1.5 [&_th]:font-semibold">
          <th className="pl-3! text-left">Period</th>
          <th className="w-[124px] text-right">First day</th>
          <th className="w-[124px] text-right">Last day</th>
          <th className="w-[52px] text-right" title="days with classes">
            Days
          </th>
          <th className="w-[94px] text-right" title="the first day at whose end more than 60 % of the period is over">
            60 % over
          </th>
          <th className="w-[56px]">
            <span className="sr-only">Add or remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {views.map(({ period, depth, classDays, part, isSealed, faults }) => (
          <tr
            key={period.id}
            onClick={() => onChoose(period.id)}
            className={`border-t border-hairline ${period.id === chosenId ? 'bg-eucalypt-soft' : ''} ${faults.length > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
          >
            <td style={{ paddingLeft: 8 + depth * 14 }}>
              <span className="flex items-center">
                <input
                  aria-label={`Name of ${period.name || `the ${period.kind} from ${showDay(period.startsOn)}`}`}
                  aria-invalid={period.name.trim() === ''}
                  placeholder="a name"
                  value={period.name}
                  maxLength={40}
                  onFocus={() => onChoose(period.id)}
                  onChange={(event) => change(period.id, { name: event.target.value })}
                  className={`h-[28px] w-full min-w-0 rounded-[3px] border border-transparent bg-transparent px-1.5 hover:border-hairline focus:border-control focus:bg-surface aria-invalid:border-waratah aria-invalid:bg-waratah-soft ${depth === 0 ? 'font-bold' : 'font-semibold'}`}
                />
                {isSealed && (
                  <Lock
                    size={12}
                    className="mr-1 shrink-0 text-eucalypt"
                    role="img"
                    aria-label="sealed: its days stay"
                  />
                )}
              </span>
            </td>
            <td>
              <DayField
                label={`First day of ${period.name}`}
                day={period.startsOn}
                disabled={isSealed}
                refuse={(day) => (day > period.endsOn ? `${period.name} ends on ${showDay(period.endsOn)}` : undefined)}
                onChange={(day) => move(period.id, 'startsOn', day)}
              />
            </td>
            <td>
              <DayField
                label={`Last day of ${period.name}`}
                day={period.endsOn}
                disabled={isSealed}
                refuse={(day) =>
                  day < period.startsOn ? `${period.name} begins on ${showDay(period.startsOn)}` : undefined
                }
                onChange={(day) => move(period.id, 'endsOn', day)}
              />
            </td>
            <td className="figures pr-2 text-right">{showCount(classDays)}</td>
            <td
              className="pr-2 text-right text-quiet tabular-nums"
              title={`${counted(part.days, 'day')} ${agreeing(part.days, 'counts')}${part.leftOut.length > 0 ? `, without ${listed(part.leftOut.map(({ days }) => counted(days, 'day')))} of breaks` : ''}`}
            >
              {showDay(part.sixtyPercentDay)}
            </td>
            <td className="pr-1.5 text-right whitespace-nowrap">
              {depth < 2 && (
                <button
                  type="button"
                  aria-label={`Add a period inside ${period.name}`}
                  onClick={() => add(period)}
                  className="rounded p-0.5 text-quiet hover:bg-eucalypt-soft hover:text-ink"
                >
                  <Plus size={14} />
                </button>
              )}
              <button
                type="button"
                aria-label={`Remove ${period.name}`}
                disabled={isSealed}
                onClick={(event) => {
                  event.stopPropagation();
                  changeCalendar(calendar, withoutPeriod(body, period));
                }}
                className="rounded p-0.5 text-quiet enabled:hover:bg-waratah-soft enabled:hover:text-waratah disabled:opacity-30"
              >
                <Trash2 size={13} />
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
