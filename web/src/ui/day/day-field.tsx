import { useId, useLayoutEffect, useRef, useState } from 'react';
import { readTypedDay, type Day } from '#core/calendar';
import { showDay } from '../format';
import { DayCalendar } from './day-calendar';
import { dayInFigures, dayInWords, dayOrderOf } from './day-order';

export interface DayFieldProps {
  readonly label: string;
  readonly day: Day;
  readonly onChange: (day: Day) => void;
  /** Why a day that can be read cannot be taken; undefined where it can. */
  readonly refuse?: ((day: Day) => string | undefined) | undefined;
  /** Whether what stands in the field can be taken, each time that changes. */
  readonly onFault?: ((isWrong: boolean) => void) | undefined;
  readonly disabled?: boolean;
}

/** A day that is always there, to type or to choose from a calendar. */
export function DayField({ day, onChange, ...field }: DayFieldProps) {
  return <DayInput {...field} day={day} near={day} onChange={(next) => next !== null && onChange(next)} />;
}

interface OptionalDayFieldProps extends Omit<DayFieldProps, 'day' | 'onChange'> {
  readonly day: Day | null;
  /** The day near which a typed one without a year lies. */
  readonly near: Day;
  readonly onChange: (day: Day | null) => void;
}

/** A day that may be left out. */
export function OptionalDayField(props: OptionalDayFieldProps) {
  return <DayInput {...props} isOptional />;
}

type DayInputProps = OptionalDayFieldProps & { readonly isOptional?: boolean };

/**
 * A day to type in the order of the reader's country; beneath it stands in words what was read, and the other day that the same
 * figures can mean. What cannot be taken stays in the field, with the reason under it.
 */
function DayInput({
  label,
  day,
  near,
  onChange,
  refuse,
  onFault,
  disabled = false,
  isOptional = false,
}: DayInputProps) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState<string | undefined>();
  const order = dayOrderOf();
  const readingOf = (text: string) => readTypedDay(text, near, order);
  const example = `a day such as ${dayInFigures('2026-01-16')} or ${showDay('2026-01-16')}`;
  const faultOf = (text: string | undefined) => {
    if (text === undefined) return undefined;
    const read = readingOf(text);
    if (read.kind === 'day') return refuse?.(read.day);
    return read.kind === 'blank' && isOptional ? undefined : example;
  };
  const fault = faultOf(typed);
  const type = (text: string | undefined) => {
    setTyped(text);
    const isWrong = faultOf(text) !== undefined;
    if (isWrong !== (fault !== undefined)) onFault?.(isWrong);
  };
  const put = (next: Day | null) => {
    if (next !== day) onChange(next);
    type(undefined);
  };
  const take = () => {
    if (fault !== undefined || typed === undefined) return;
    const read = readingOf(typed);
    put(read.kind === 'day' ? read.day : null);
  };
  const isTyping = typed !== undefined;
  useLayoutEffect(() => {
    if (isTyping && document.activeElement === field.current) field.current?.select();
  }, [isTyping]);
  const shown = day === null ? '' : showDay(day);
  const read = typed === undefined || typed === inFigures(day) ? undefined : readingOf(typed);
  return (
    <span className="relative flex items-center">
      <input
        aria-label={label}
        aria-invalid={fault !== undefined}
        aria-describedby={typed === undefined ? undefined : id}
        disabled={disabled}
        autoComplete="off"
        value={typed ?? shown}
        ref={field}
        onMouseDown={(event) => {
          // The first click selects the day as a key would; the next one puts the caret.
          if (document.activeElement === event.currentTarget) return;
          event.preventDefault();
          event.currentTarget.focus();
        }}
        onFocus={() => typed === undefined && type(inFigures(day))}
        onChange={(event) => type(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key !== 'Escape' || typed === undefined || typed === inFigures(day)) return;
          // The first Esc gives up what was typed, and no more than that.
          event.stopPropagation();
          type(inFigures(day));
        }}
        className="tabular-nums h-[28px] w-full min-w-0 rounded-[3px] border border-transparent bg-transparent px-1.5 text-right hover:border-hairline focus:border-control focus:bg-surface disabled:text-quiet aria-invalid:border-waratah aria-invalid:bg-waratah-soft"
      />
      <DayCalendar label={label} day={day} near={near} disabled={disabled} onChoose={put} />
      {(fault !== undefined || read?.kind === 'day') && (
        <span
          id={id}
          role={fault === undefined ? 'status' : 'alert'}
          className={`absolute top-full right-0 z-30 mt-0.5 rounded bg-surface px-1.5 py-0.5 text-[12px] whitespace-nowrap shadow-float ${fault === undefined ? 'text-quiet' : 'text-waratah'}`}
        >
          {fault ?? (read?.kind === 'day' && dayInWords(read.day))}
          {fault === undefined && read?.kind === 'day' && read.otherwise && (
            <>
              {' · '}
              <button
                type="button"
                // Before the field is left, which would take the first reading.
                onMouseDown={(event) => {
                  event.preventDefault();
                  put(read.otherwise);
                }}
                className="font-semibold text-estuary underline"
              >
                or {showDay(read.otherwise)}?
              </button>
            </>
          )}
        </span>
      )}
    </span>
  );
}

function inFigures(day: Day | null): string {
  return day === null ? '' : dayInFigures(day);
}
