import { Lock } from 'lucide-react';
import type { PeriodReply, TermLineReply } from '#contract/calendar';
import { periodAlike, periodBeside, yearOf } from '#core/calendar';
import { showWeekday } from '../ui/format';
import { useKeys } from '../ui/use-keys';
import { NarrowTermLine } from './narrow-term-line';
import { dayOfInstant } from '../ui/day/zone-time';
import { Choice } from '../ui/field';
import { useChoosePeriod, useScope } from './scope';
import { createTimeAxis, monthsOf, type TimeAxis } from './time-axis';

/** The year as a line across the top of every screen; what is chosen here is the period every screen works on. */
export function TermLine({ termLine }: { termLine: TermLineReply }) {
  const { periodId } = useScope();
  const choosePeriod = useChoosePeriod();
  const { now } = termLine;
  const { year, periods } = yearAround(termLine.periods, periodId);
  const axis = createTimeAxis(year.startsOn, year.endsOn);
  const hasInner = ({ id }: PeriodReply) => periods.some(({ parentId }) => parentId === id);
  const posted = periods.filter((period) => period.id !== year.id && !hasInner(period));
  const between = periods.filter((period) => period.id !== year.id && hasInner(period));
  const step = (by: 1 | -1) => () => {
    const next = periodBeside(termLine.periods, periodId, by);
    if (next) choosePeriod(next.id);
  };
  const years = termLine.periods.filter(({ parentId }) => parentId === null);
  useKeys([
    { key: '[', says: 'the period before, of the year before too', act: step(-1) },
    { key: ']', says: 'the next period, of the next year too', act: step(1) },
  ]);
  const today = axis.at(dayOfInstant(now));
  return (
    <nav aria-label="Term line" className="mx-4 flex h-full min-w-0 flex-1 items-center gap-3">
      {years.length > 1 && (
        <Choice
          label="School year"
          value={year.id}
          onChange={(event) => choosePeriod(periodAlike(termLine.periods, periodId, Number(event.target.value)).id)}
        >
          {years
            .toSorted((a, b) => a.startsOn.localeCompare(b.startsOn))
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </Choice>
      )}
      <div className="relative h-full min-w-0 flex-1 max-[860px]:hidden">
        {monthsOf(year.startsOn, year.endsOn).map(({ name, startsOn }) => (
          <span
            key={startsOn}
            style={{ left: axis.percent(axis.at(startsOn)) }}
            className="absolute top-0 h-4 border-l border-hairline pl-1 text-[11px] text-quiet"
          >
            {name}
          </span>
        ))}
        {between.map((period) => (
          <button
            key={period.id}
            type="button"
            aria-current={period.id === periodId ? 'page' : undefined}
            onClick={() => choosePeriod(period.id)}
            style={axis.span(period)}
            className="absolute top-[18px] h-[15px] truncate rounded-[3px] bg-ground px-2 text-left text-[11px] leading-[15px] text-quiet hover:text-ink aria-[current]:bg-eucalypt aria-[current]:text-on-eucalypt"
          >
            {period.name}
          </button>
        ))}
        {posted.map((period) => (
          <PeriodBar
            key={period.id}
            period={period}
            axis={axis}
            isChosen={period.id === periodId}
            isTall={between.length === 0}
            onChoose={() => choosePeriod(period.id)}
          />
        ))}
        {today >= 0 && today <= 1 && (
          <div
            aria-hidden
            style={{ left: axis.percent(today) }}
            className="pointer-events-none absolute inset-y-0 z-20 w-px bg-ink"
          >
            <span className="absolute top-0 -translate-x-1/2 rounded-full bg-ink px-2 text-[11px] leading-4 font-semibold whitespace-nowrap text-surface">
              {showWeekday(now)}
            </span>
          </div>
        )}
      </div>
      <NarrowTermLine periods={periods} periodId={periodId} onChoose={choosePeriod} onStep={(by) => step(by)()} />
    </nav>
  );
}

/** The year that the chosen period lies in, with its periods; the first year where the address names none. */
function yearAround(periods: readonly PeriodReply[], periodId: number) {
  const chosen = periods.find(({ id }) => id === periodId) ?? periods[0]!;
  const year = yearOf(periods, chosen);
  return { year, periods: periods.filter((period) => yearOf(periods, period).id === year.id) };
}

interface PeriodBarProps {
  readonly period: PeriodReply;
  readonly axis: TimeAxis;
  readonly isChosen: boolean;
  readonly isTall: boolean;
  readonly onChoose: () => void;
}

function PeriodBar({ period, axis, isChosen, isTall, onChoose }: PeriodBarProps) {
  const { sections = 0, sectionsComplete = 0, window = null, sealedAt = null } = period.posting ?? {};
  const filled = sections === 0 ? 0 : sectionsComplete / sections;
  const words = !period.posting
    ? 'nothing is posted here'
    : sealedAt
      ? 'sealed'
      : `${sectionsComplete} of ${sections} sections complete`;
  return (
    <>
      <button
        type="button"
        onClick={onChoose}
        aria-current={isChosen ? 'page' : undefined}
        title={words}
        style={axis.span(period)}
        className={`absolute bottom-0 px-1 pt-1 ${isTall ? 'top-[18px]' : 'top-[34px]'} ${isChosen ? 'z-10 rounded-t-md bg-eucalypt' : ''}`}
      >
        <span className="relative flex h-[18px] items-center overflow-hidden rounded-[3px] bg-ground px-2 text-[12px] font-semibold">
          <span
            aria-hidden
            style={{ width: `${filled * 100}%` }}
            className="absolute inset-y-0 left-0 bg-eucalypt-mid"
          />
          <span className="relative truncate">{period.name}</span>
          <span className="figures relative pl-2 text-[11px] font-normal">
            {sealedAt ? (
              <Lock size={12} role="img" aria-label="sealed" />
            ) : filled > 0 ? (
              `${sectionsComplete}/${sections}`
            ) : (
              ''
            )}
          </span>
          {period.posting && !sealedAt && <span className="sr-only">sections complete</span>}
        </span>
      </button>
      {window && (
        <span
          aria-hidden
          style={axis.span({ startsOn: dayOfInstant(window.opensAt), endsOn: dayOfInstant(window.closesAt) })}
          className={`pointer-events-none absolute bottom-1 z-10 h-[5px] min-w-2 rounded-full ${window.state === 'open' ? 'bg-wattle-fill' : 'bg-control opacity-50'}`}
        />
      )}
    </>
  );
}
