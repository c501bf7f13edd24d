import type { ReactNode } from 'react';

/** A sheet of surface on the ground. */
export function Panel({
  label,
  className = '',
  children,
}: {
  label?: string;
  className?: string;
  children: ReactNode;
}) {
  return (
    <section aria-label={label} className={`rounded-md border border-hairline bg-surface ${className}`}>
      {children}
    </section>
  );
}

/** A note at the side with a coloured edge: matters to settle, what a change would do. */
export function Note({
  tone,
  title,
  children,
}: {
  tone: 'so' | 'warns' | 'blocks';
  title: string;
  children: ReactNode;
}) {
  const edge = { so: 'border-l-eucalypt', warns: 'border-l-wattle-fill', blocks: 'border-l-waratah' }[tone];
  return (
    <section className={`rounded-md border border-l-[3px] border-hairline bg-surface px-4 py-3 ${edge}`}>
      <h2 className="mb-1.5 font-bold">{title}</h2>
      <div className="space-y-1.5 text-[13px]">{children}</div>
    </section>
  );
}

/** What belongs where there is nothing yet, and the first step. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-col items-center gap-2 px-6 py-14 text-center">
      <p className="text-[16px] font-semibold">{title}</p>
      <div className="max-w-md text-quiet">{children}</div>
    </div>
  );
}
