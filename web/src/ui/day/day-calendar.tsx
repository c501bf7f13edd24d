import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { DayPicker } from 'react-day-picker';
import { ownLocale, useOwnView } from '../own-view';
import { parseDay, type Day } from '#core/calendar';

interface DayCalendarProps {
  /** What the day is of, for whoever does not see the field beside it. */
  readonly label: string;
  readonly day: Day | null;
  /** Where the calendar opens while there is no day. */
  readonly near: Day;
  readonly disabled: boolean;
  readonly onChoose: (day: Day) => void;
}

/** The weekday on which the reader's weeks begin; 0 is Sunday. */
function firstWeekday(): 0 | 1 | 6 {
  const { firstWeekday: chosen } = useOwnView.getState();
  if (chosen !== 'country') return chosen;
  const locale = new Intl.Locale(ownLocale() ?? navigator.language) as Intl.Locale & {
    weekInfo?: { firstDay: number };
    getWeekInfo?: () => { firstDay: number };
  };
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1;
  return first === 7 ? 0 : first === 6 ? 6 : 1;
}

/** A calendar to choose a day from, beside the field in which it can be typed. */
export function DayCalendar({ label, day, near, disabled, onChoose }: DayCalendarProps) {
  const [isOpen, setOpen] = useState(false);
  const dateOf = (each: Day) => new Date(`${each}T12:00:00`);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button
          type="button"
          disabled={disabled}
          aria-label={`${label}: choose from a calendar`}
          className="grid size-6 shrink-0 place-items-center rounded text-quiet enabled:hover:bg-raised enabled:hover:text-ink disabled:opacity-30"
        >
          <CalendarDays size={14} aria-hidden />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label={label}
          className="z-[60] rounded-md border border-hairline bg-surface p-3 text-[13px] shadow-float"
        >
          <DayPicker
            mode="single"
            autoFocus
            weekStartsOn={firstWeekday()}
            defaultMonth={dateOf(day ?? near)}
            selected={day === null ? undefined : dateOf(day)}
            onSelect={(date) => {
              const chosen = date && parseDay(localDay(date));
              if (!chosen) return;
              onChoose(chosen);
              setOpen(false);
            }}
            classNames={{
              months: 'relative',
              month_caption: 'mb-2 flex h-7 items-center font-bold',
              nav: 'absolute top-0 right-0 flex gap-1',
              button_previous: 'grid size-7 place-items-center rounded hover:bg-raised',
              button_next: 'grid size-7 place-items-center rounded hover:bg-raised',
              chevron: 'size-4 fill-current',
              weekday: 'h-7 w-8 text-center text-[12px] font-normal text-quiet',
              day: 'p-0 text-center',
              day_button: 'figures size-8 rounded hover:bg-raised',
              selected: '[&_button]:bg-eucalypt [&_button]:text-surface',
              outside: 'text-quiet opacity-50',
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function localDay(date: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
