import { useId, type ComponentProps, type ReactNode } from 'react';
import { Select, type SelectProps } from './choice/select';

/** A labelled input with what is wrong beside it. */
export function TextField({
  label,
  fault,
  className = '',
  ...input
}: ComponentProps<'input'> & { label: string; fault?: string | undefined }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[13px] font-semibold">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={fault !== undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        className="h-9 w-full rounded-md border border-control bg-surface px-2.5 aria-invalid:border-waratah"
        {...input}
      />
      {fault && (
        <p id={`${id}-fault`} className="mt-1 text-[13px] text-waratah">
          {fault}
        </p>
      )}
    </div>
  );
}

/** A labelled text of some lines, with what is wrong beneath it. */
export function AreaField({
  label,
  fault,
  ...area
}: ComponentProps<'textarea'> & { label: string; fault?: string | undefined }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[13px] font-semibold">
        {label}
      </label>
      <textarea
        id={id}
        rows={3}
        aria-invalid={fault !== undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        className="w-full rounded-md border border-control bg-surface px-2.5 py-1.5 aria-invalid:border-waratah"
        {...area}
      />
      {fault && (
        <p id={`${id}-fault`} className="text-[13px] text-waratah">
          {fault}
        </p>
      )}
    </div>
  );
}

/** A choice inside a sentence. */
export function Choice({ label, children, ...select }: SelectProps & { label: string; children: ReactNode }) {
  return (
    <Select
      aria-label={label}
      className="max-w-full appearance-none rounded-none border-0 border-b-2 border-dotted border-eucalypt bg-transparent px-0.5 font-bold text-eucalypt [field-sizing:content] hover:border-solid"
      {...select}
    >
      {children}
    </Select>
  );
}

/** A labelled choice from a list, with what is wrong beside it. */
export function SelectField({
  label,
  fault,
  className = '',
  children,
  ...select
}: SelectProps & { label: string; fault?: string | undefined }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[13px] font-semibold">
        {label}
      </label>
      <Select
        id={id}
        aria-invalid={fault !== undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        className="h-9 w-full rounded-md border border-control bg-surface px-2 aria-invalid:border-waratah"
        {...select}
      >
        {children}
      </Select>
      {fault && (
        <p id={`${id}-fault`} className="mt-1 text-[13px] text-waratah">
          {fault}
        </p>
      )}
    </div>
  );
}

/** Something that is so or not. */
export function CheckField({ label, className = '', ...input }: ComponentProps<'input'> & { label: ReactNode }) {
  return (
    <label className={`flex items-center gap-2 ${className}`}>
      <input type="checkbox" className="size-4 shrink-0 accent-eucalypt" {...input} />
      {label}
    </label>
  );
}

/** Two or more views of one page, side by side; the chosen one is kept in the address. */
export function ViewSwitch<View extends string>({
  label,
  views,
  chosen,
  onChoose,
}: {
  label: string;
  views: readonly (readonly [view: View, name: string])[];
  chosen: View;
  onChoose: (view: View) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex rounded-md border border-hairline bg-surface p-0.5">
      {views.map(([view, name]) => (
        <button
          key={view}
          type="button"
          aria-pressed={view === chosen}
          onClick={() => onChoose(view)}
          className="rounded px-2.5 py-0.5 font-semibold text-quiet hover:text-ink aria-pressed:bg-eucalypt-soft aria-pressed:text-eucalypt"
        >
          {name}
        </button>
      ))}
    </div>
  );
}
