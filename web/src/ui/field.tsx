import { useId, type ComponentProps, type ReactNode } from 'react';

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

/** A choice inside a sentence. */
export function Choice({
  label,
  children,
  ...select
}: ComponentProps<'select'> & { label: string; children: ReactNode }) {
  return (
    <select
      aria-label={label}
      className="max-w-full appearance-none rounded-none border-0 border-b-2 border-dotted border-eucalypt bg-transparent px-0.5 font-bold text-eucalypt [field-sizing:content] hover:border-solid"
      {...select}
    >
      {children}
    </select>
  );
}
