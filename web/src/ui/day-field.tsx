import { useState } from 'react';
import { readTypedDay, type Day } from '#core/calendar';
import { showDay } from './format';

interface DayFieldProps {
  readonly label: string;
  readonly day: Day;
  readonly onChange: (day: Day) => void;
  readonly disabled?: boolean;
}

/** A day to type, as 2026-01-16 or "16 jan"; a year left out is the one nearest to the day that stands there. */
export function DayField({ label, day, onChange, disabled = false }: DayFieldProps) {
  const [typed, setTyped] = useState<string | undefined>();
  const read = typed === undefined ? undefined : readTypedDay(typed, day);
  const isWrong = read !== undefined && read.kind !== 'day';
  const take = () => {
    if (read?.kind === 'day' && read.day !== day) onChange(read.day);
    if (!isWrong) setTyped(undefined);
  };
  return (
    <input
      aria-label={label}
      aria-invalid={isWrong}
      title={isWrong ? 'a day such as 2026-01-16 or 16 jan' : undefined}
      disabled={disabled}
      value={typed ?? showDay(day)}
      onFocus={(event) => {
        setTyped(day);
        const field = event.target;
        requestAnimationFrame(() => field.select());
      }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(undefined);
      }}
      className="tabular-nums h-[28px] w-full rounded-[3px] border border-transparent bg-transparent px-1.5 text-right hover:border-hairline focus:border-control focus:bg-surface disabled:text-quiet aria-invalid:border-waratah aria-invalid:bg-waratah-soft"
    />
  );
}
