import { DayField, type DayFieldProps } from './day-field';

/** A day in a form: what it is of above it, in a box like other fields. */
export function FormDayField(field: DayFieldProps) {
  return (
    <div>
      <span aria-hidden className="mb-1 block text-[13px] font-semibold">
        {field.label}
      </span>
      <div className="flex h-9 items-center rounded-md border border-control bg-surface px-1 [&_input]:text-left [&>span]:w-full">
        <DayField {...field} />
      </div>
    </div>
  );
}
