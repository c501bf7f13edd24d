import { useId, useState } from 'react';
import { readTypedDay, type Day } from '#core/calendar';
import { showDay } from './format';

interface DayFieldProps {
  readonly label: string;
  readonly day: Day;
  readonly onChange: (day: Day) => void;
  /** Why a day that can be read cannot be taken; undefined where it can. */
  readonly refuse?: (day: Day) => string | undefined;
  /** Whether what stands in the field can be taken, each time that changes. */
  readonly onFault?: (isWrong: boolean) => void;
  readonly disabled?: boolean;
}

/**
 * A day to type, as 2026-01-16 or "16 jan"; a year left out is the one nearest to the day that stands there. What cannot
 * be taken stays in the field, with the reason under it.
 */
export function DayField({ label, day, onChange, refuse, onFault, disabled = false }: DayFieldProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | undefined>();
  const faultOf = (text: string | undefined) => {
    const read = text === undefined ? undefined : readTypedDay(text, day);
    if (read === undefined) return undefined;
    return read.kind === 'day' ? refuse?.(read.day) : 'a day such as 2026-01-16 or 16 jan';
  };
  const fault = faultOf(typed);
  const type = (text: string | undefined) => {
    setTyped(text);
    const isWrong = faultOf(text) !== undefined;
    if (isWrong !== (fault !== undefined)) onFault?.(isWrong);
  };
  const take = () => {
    if (fault !== undefined || typed === undefined) return;
    const read = readTypedDay(typed, day);
    if (read.kind === 'day' && read.day !== day) onChange(read.day);
    type(undefined);
  };
  return (
    <span className="relative block">
      <input
        aria-label={label}
        aria-invalid={fault !== undefined}
        aria-describedby={fault === undefined ? undefined : id}
        disabled={disabled}
        value={typed ?? showDay(day)}
        onFocus={(event) => {
          if (typed === undefined) type(day);
          const field = event.target;
          requestAnimationFrame(() => field.select());
        }}
        onChange={(event) => type(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') type(undefined);
        }}
        className="tabular-nums h-[28px] w-full rounded-[3px] border border-transparent bg-transparent px-1.5 text-right hover:border-hairline focus:border-control focus:bg-surface disabled:text-quiet aria-invalid:border-waratah aria-invalid:bg-waratah-soft"
      />
      {fault !== undefined && (
        <span
          id={id}
          role="alert"
          className="absolute top-full right-0 z-20 mt-0.5 rounded bg-surface px-1.5 py-0.5 text-[12px] whitespace-nowrap text-waratah shadow-float"
        >
          {fault}
        </span>
      )}
    </span>
  );
}
