import { latePosters, type Day, type LatePosters } from '#core/calendar';
import type { CalendarReply, WindowBody } from '#contract/calendar';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import { InstantField } from '../ui/day/instant-field';
import { dayOfInstant } from '../ui/day/zone-time';
import { changeCalendar, type CalendarBody } from './calendar-drafts';
import { newWindow, type PeriodView } from './calendar-view';

const lateWords: Record<LatePosters, string> = {
  nobody: 'no late posting',
  registrars: 'registrars may post late',
  teachers: 'teachers may post late',
};

/** When each item of a period is posted. */
export function WindowList({
  calendar,
  body,
  view,
}: {
  calendar: CalendarReply;
  body: CalendarBody;
  view: PeriodView;
}) {
  const { period, items, windows } = view;
  const others = body.windows.filter(({ periodId }) => periodId !== period.id);
  const put = (itemId: number, window: WindowBody | undefined) =>
    changeCalendar(calendar, {
      windows: [...others, ...windows.filter((each) => each.itemId !== itemId), ...(window ? [window] : [])],
    });
  return (
    <div className="px-3 py-2.5 text-[13px]">
      <h2 className="mb-1 text-[14px] font-bold">Posting in {period.name}</h2>
      {items.length === 0 && <p className="text-quiet">No report item is posted in {period.name}.</p>}
      <ul>
        {items.map(({ id, name }) => {
          const window = windows.find(({ itemId }) => itemId === id);
          return (
            <li key={id} className="border-t border-hairline py-1.5 first:border-t-0">
              <div className="flex items-center gap-2">
                <b className="min-w-0 flex-1 truncate font-semibold">{name}</b>
                {window ? (
                  <Choice
                    label={`Who posts ${name} late`}
                    value={window.latePosters}
                    onChange={(event) => put(id, { ...window, latePosters: event.target.value as LatePosters })}
                  >
                    {latePosters.map((each) => (
                      <option key={each} value={each}>
                        {lateWords[each]}
                      </option>
                    ))}
                  </Choice>
                ) : (
                  <Button writes onClick={() => put(id, newWindow(id, period, body.weekdays))}>
                    Set its window
                  </Button>
                )}
              </div>
              {window && (
                <WindowFields
                  name={name}
                  window={window}
                  endsOn={period.endsOn}
                  onChange={(changed) => put(id, changed)}
                />
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function WindowFields({
  name,
  window,
  endsOn,
  onChange,
}: {
  name: string;
  window: WindowBody;
  endsOn: Day;
  onChange: (window: WindowBody | undefined) => void;
}) {
  const field = (key: 'opensAt' | 'closesAt' | 'graceUntil', label: string, usualTime: string) => (
    <div className="flex flex-col text-[11px] text-quiet">
      {label}
      <InstantField
        label={`${name} ${label}`}
        instant={window[key]}
        near={endsOn}
        usualTime={usualTime}
        onChange={(instant) => {
          if (instant) onChange({ ...window, [key]: instant });
          else if (key === 'graceUntil') onChange({ ...window, graceUntil: null });
        }}
      />
    </div>
  );
  const isEarly = dayOfInstant(window.closesAt) < endsOn;
  return (
    <div className="mt-1 space-y-1">
      <div className="flex flex-wrap gap-2">
        {field('opensAt', 'opens', '08:00')}
        {field('closesAt', 'closes', '17:00')}
      </div>
      <div className="flex items-end gap-2">
        {field('graceUntil', 'grace until', '17:00')}
        {isEarly && (
          <input
            aria-label={`Why ${name} closes early`}
            placeholder="why it closes before the period ends"
            value={window.earlyReason}
            maxLength={120}
            onChange={(event) => onChange({ ...window, earlyReason: event.target.value })}
            className={`h-[28px] min-w-0 flex-1 rounded-[3px] border bg-surface px-2 ${window.earlyReason.trim() ? 'border-hairline' : 'border-wattle-fill'}`}
          />
        )}
        <button
          type="button"
          onClick={() => onChange(undefined)}
          className="ml-auto text-[12px] text-quiet hover:text-waratah"
        >
          no window
        </button>
      </div>
    </div>
  );
}
