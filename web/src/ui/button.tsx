import type { ComponentProps } from 'react';
import { useViewOnly } from './view-only';

const looks = {
  main: 'border-eucalypt bg-eucalypt text-on-eucalypt hover:brightness-110 disabled:opacity-45',
  plain: 'border-hairline bg-surface text-ink hover:border-control disabled:text-quiet disabled:opacity-60',
  danger: 'border-waratah bg-surface text-waratah hover:bg-waratah-soft disabled:opacity-45',
  quiet: 'border-transparent bg-transparent text-quiet hover:text-ink hover:bg-eucalypt-soft',
} as const;

/**
 * A button; `main` for the one thing to do next, of which a page has one at most. One that `writes` is not there on a page that
 * can only be looked at; `main` and `danger` write unless they say otherwise.
 */
export function Button({
  look = 'plain',
  className = '',
  type = 'button',
  writes = look === 'main' || look === 'danger',
  ...rest
}: ComponentProps<'button'> & { look?: keyof typeof looks; writes?: boolean }) {
  const { isViewOnly } = useViewOnly();
  if (writes && isViewOnly) return null;
  return (
    <button
      type={type}
      className={`inline-flex h-8 shrink-0 items-center gap-2 rounded-md border px-3 font-semibold whitespace-nowrap transition-colors disabled:cursor-not-allowed ${looks[look]} ${className}`}
      {...rest}
    />
  );
}

/** The key that does the same, on a button. */
export function Key({ children }: { children: string }) {
  return <kbd className="figures rounded border border-current px-1 text-[11px] font-normal">{children}</kbd>;
}

/** A button that is an icon alone; its label says what it does. */
export function IconButton({
  label,
  className = '',
  writes = false,
  ...rest
}: ComponentProps<'button'> & { label: string; writes?: boolean }) {
  const { isViewOnly } = useViewOnly();
  if (writes && isViewOnly) return null;
  return (
    <button
      type="button"
      aria-label={label}
      className={`rounded p-1.5 text-quiet hover:bg-eucalypt-soft hover:text-ink disabled:opacity-40 ${className}`}
      {...rest}
    />
  );
}
