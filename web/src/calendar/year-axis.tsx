import { moveEdge, type Day, type PeriodEdge } from '#core/calendar';
import type { CalendarReply } from '#contract/calendar';
import { showDay } from '../ui/format';
import { dayOfInstant } from '../ui/day/zone-time';
import { createTimeAxis, monthsOf, type TimeAxis } from '../shell/time-axis';
import { changeCalendar, type CalendarBody } from './calendar-drafts';
import { ToChange } from '../ui/changeable';
import { EdgeHandle } from './edge-handle';
import { yearBeside, type PeriodView } from './calendar-view';

export interface AxisSchool {
  readonly calendar: CalendarReply;
  readonly body: CalendarBody;
  readonly views: readonly PeriodView[];
}

interface YearAxisProps {
  readonly schools: readonly AxisSchool[];
  readonly chosenSchoolId: number;
  readonly chosenPeriodId: number | undefined;
  readonly today: string;
  readonly onChoose: (schoolId: number, periodId: number) => void;
}

const laneHeight = 24;

/** The calendars of all schools on one time axis: periods as nested bars, breaks hatched, windows as notches. */
export function YearAxis({ schools, chosenSchoolId, chosenPeriodId, today, onChoose }: YearAxisProps) {
  const years = schools.flatMap(({ views }) => (views[0] ? [views[0].period] : []));
  const startsOn = years.map((year) => year.startsOn).toSorted()[0];
  const endsOn = years
    .map((year) => year.endsOn)
    .toSorted()
    .at(-1);
  if (!startsOn || !endsOn) return null;
  const axis = createTimeAxis(startsOn, endsOn);
  const at = axis.at(today);
  return (
    <div className="px-4 pt-1 pb-3">
      <div className="relative ml-[128px] h-5">
        {monthsOf(startsOn, endsOn).map(({ name, startsOn: month }) => (
          <span
            key={month}
            style={{ left: axis.percent(axis.at(month)) }}
            className="absolute top-0 h-5 border-l border-hairline pl-1 text-[11px] text-quiet"
          >
            {name}
          </span>
        ))}
      </div>
      <div className="relative">
        {schools.map((school) => (
          <SchoolLanes
            key={school.calendar.school.id}
            school={school}
            axis={axis}
            isChosen={school.calendar.school.id === chosenSchoolId}
            chosenPeriodId={chosenPeriodId}
            onChoose={onChoose}
          />
        ))}
        {at >= 0 && at <= 1 && (
          <div aria-hidden className="pointer-events-none absolute inset-y-0 right-0 left-[128px]">
            <span style={{ left: axis.percent(at) }} className="absolute inset-y-0 w-px bg-ink" />
          </div>
        )}
      </div>
    </div>
  );
}

interface SchoolLanesProps {
  readonly school: AxisSchool;
  readonly axis: TimeAxis;
  readonly isChosen: boolean;
  readonly chosenPeriodId: number | undefined;
  readonly onChoose: YearAxisProps['onChoose'];
}

function SchoolLanes({ school, axis, isChosen, chosenPeriodId, onChoose }: SchoolLanesProps) {
  const { calendar, body, views } = school;
  const depth = Math.max(0, ...views.map((view) => view.depth)) + 1;
  const breaks = views[0] ? body.breaks.filter((each) => yearBeside({ periods: [views[0]!.period] }, each)) : [];
  const move = (periodId: number, edge: PeriodEdge, day: Day, isSameStep: boolean) =>
    changeCalendar(calendar, { periods: moveEdge(body, periodId, edge, day) }, isSameStep);
  return (
    <div className={`flex border-t border-hairline py-1.5 ${isChosen ? 'bg-eucalypt-soft/40' : ''}`}>
      <button
        type="button"
        onClick={() => views[0] && onChoose(calendar.school.id, views[0].period.id)}
        className={`w-[128px] shrink-0 truncate pr-2 text-left text-[13px] ${isChosen ? 'font-bold' : 'text-quiet hover:text-ink'}`}
      >
        {calendar.school.shortName}
      </button>
      <div className="relative min-w-0 flex-1 overflow-hidden" style={{ height: depth * laneHeight + 8 }}>
        {views.map(({ period, depth: lane, isSealed, windows, part, faults }) => (
          <div key={period.id}>
            <div
              style={{ ...axis.span(period), top: lane * laneHeight, height: laneHeight - 3 }}
              className={`absolute rounded-[3px] ${period.id === chosenPeriodId ? 'bg-eucalypt text-on-eucalypt' : lane === 0 ? 'bg-ground' : lane < depth - 1 ? 'bg-eucalypt-soft' : 'bg-eucalypt-mid'} ${faults.length > 0 ? 'outline-2 outline-wattle-fill' : ''}`}
            >
              <button
                type="button"
                aria-pressed={period.id === chosenPeriodId}
                title={`${period.name}: ${showDay(period.startsOn)} to ${showDay(period.endsOn)}${isSealed ? ', sealed' : ''}`}
                onClick={() => onChoose(calendar.school.id, period.id)}
                className="block h-full w-full truncate px-2.5 text-left text-[12px] font-semibold"
              >
                {period.name}
              </button>
              {lane > 0 && (
                <span
                  aria-hidden
                  title={`60 % is over from ${showDay(part.sixtyPercentDay)} on`}
                  style={{ left: `${share(period, part.sixtyPercentDay)}%` }}
                  className="absolute bottom-0 h-[5px] w-[2px] bg-ink"
                />
              )}
              {isChosen && !isSealed && (
                <ToChange>
                  <EdgeHandle
                    period={period}
                    edge="startsOn"
                    axis={axis}
                    onMove={(day, isSame) => move(period.id, 'startsOn', day, isSame)}
                  />
                  <EdgeHandle
                    period={period}
                    edge="endsOn"
                    axis={axis}
                    onMove={(day, isSame) => move(period.id, 'endsOn', day, isSame)}
                  />
                </ToChange>
              )}
            </div>
            {windows.map((window) => (
              <span
                key={window.itemId}
                aria-hidden
                style={{
                  ...axis.span({ startsOn: dayOfInstant(window.opensAt), endsOn: dayOfInstant(window.closesAt) }),
                  top: depth * laneHeight,
                }}
                className="absolute h-[5px] min-w-1.5 rounded-full bg-wattle-fill"
              />
            ))}
          </div>
        ))}
        {breaks.map((each) => (
          <div
            key={each.id}
            title={`${each.name}: ${showDay(each.startsOn)} to ${showDay(each.endsOn)}`}
            style={axis.span(each)}
            className="pointer-events-none absolute inset-y-0 opacity-55 [background-image:repeating-linear-gradient(135deg,var(--control)_0_1px,transparent_1px_5px)]"
          />
        ))}
      </div>
    </div>
  );
}

/** Where in the bar a day ends, in hundredths. */
function share(period: { readonly startsOn: string; readonly endsOn: string }, day: string): number {
  return createTimeAxis(period.startsOn, period.endsOn).at(day) * 100;
}
