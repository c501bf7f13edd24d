import type { ReactNode } from 'react';

/** One line of a sum laid out as on paper. */
export interface WorkingLine {
  readonly says: ReactNode;
  readonly figure: string;
  readonly note?: ReactNode;
  /** A rule above the line, as above the result of a sum. */
  readonly isResult?: boolean;
}

/** A sum as on paper: what it says at the left, the figure at the right, what it rests on beneath. */
export function WorkingsSheet({ lines }: { lines: readonly WorkingLine[] }) {
  return (
    <dl className="rounded-md border border-hairline">
      {lines.map(({ says, figure, note, isResult }, index) => (
        <div
          key={index}
          className={`grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 px-3.5 py-2 ${isResult ? 'border-t-2 border-ink font-bold' : index > 0 ? 'border-t border-hairline' : ''}`}
        >
          <dt>{says}</dt>
          <dd className="figures">{figure}</dd>
          {note && <dd className="col-span-2 mt-0.5 text-[12px] font-normal text-quiet">{note}</dd>}
        </div>
      ))}
    </dl>
  );
}
