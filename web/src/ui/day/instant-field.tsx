import { useState } from 'react';
import { readTypedTime, type Day } from '#core/calendar';
import { showTime } from '../format';
import { OptionalDayField } from './day-field';
import { dayOfInstant, instantOfLocal } from './zone-time';

interface InstantFieldProps {
  readonly label: string;
  /** An instant as ISO 8601 writes it; null for none. */
  readonly instant: string | null;
  /** The day near which a typed one without a year lies. */
  readonly near: Day;
  /** The time of day that a day gets which has none yet, such as "17:00". */
  readonly usualTime: string;
  readonly onChange: (instant: string | null) => void;
}

/** A day and a time of the district's zone, on the 24-hour clock that all pages show; without a day there is none. */
export function InstantField({ label, instant, near, usualTime, onChange }: InstantFieldProps) {
  const [typed, setTyped] = useState<string | undefined>();
  const day = instant === null ? null : dayOfInstant(instant);
  const time = instant === null ? usualTime : showTime(instant);
  const isWrong = typed !== undefined && readTypedTime(typed) === undefined;
  const put = (nextDay: Day | null, nextTime: string) =>
    onChange(nextDay === null ? null : (instantOfLocal(`${nextDay}T${nextTime}`) ?? instant));
  const takeTime = () => {
    const read = typed === undefined ? undefined : readTypedTime(typed);
    if (read === undefined) return;
    setTyped(undefined);
    if (read !== time) put(day, read);
  };
  return (
    <span className="flex items-center gap-1 rounded-[3px] border border-hairline bg-surface text-[12px]">
      <span className="w-[124px]">
        <OptionalDayField label={`${label}, day`} day={day} near={near} onChange={(next) => put(next, time)} />
      </span>
      <span className="relative">
        <input
          aria-label={`${label}, time`}
          aria-invalid={isWrong}
          disabled={day === null}
          value={typed ?? (day === null ? '' : time)}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={takeTime}
          onKeyDown={(event) => {
            if (event.key === 'Enter') takeTime();
            if (event.key === 'Escape') setTyped(undefined);
          }}
          className="figures h-[28px] w-[52px] rounded-[3px] bg-transparent px-1.5 aria-invalid:bg-waratah-soft"
        />
        {isWrong && (
          <span
            role="alert"
            className="absolute top-full right-0 z-30 mt-0.5 rounded bg-surface px-1.5 py-0.5 whitespace-nowrap text-waratah shadow-float"
          >
            a time such as 17:00 or 5 pm
          </span>
        )}
      </span>
    </span>
  );
}
