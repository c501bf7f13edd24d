import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';

interface ColumnHeadProps {
  readonly name: string;
  readonly width: string | number | undefined;
  readonly align: 'left' | 'right' | 'center';
  /** How the column sorts; undefined where it does not. */
  readonly sort:
    | { readonly direction: 'asc' | 'desc' | false; readonly onToggle: (() => void) | undefined }
    | undefined;
  readonly isLast: boolean;
  readonly onResize: ((width: number) => void) | undefined;
  readonly children: ReactNode;
}

const alignment = { left: 'text-left', right: 'text-right', center: 'text-center' };
const [narrowest, step] = [40, 16];

/** The head of a column: a press sorts; its right edge is dragged, or moved by Alt and the arrows. */
export function ColumnHead({ name, width, align, sort, isLast, onResize, children }: ColumnHeadProps) {
  const cell = useRef<HTMLTableCellElement>(null);
  const resizeTo = (to: number) => onResize?.(Math.max(narrowest, Math.round(to)));
  const widthNow = () => cell.current!.getBoundingClientRect().width;
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -step, ArrowRight: step }[event.key];
    if (!event.altKey || by === undefined || !onResize) return;
    event.preventDefault();
    resizeTo(widthNow() + by);
  };
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    const [from, before] = [event.clientX, widthNow()];
    const edge: HTMLElement = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    const release = new AbortController();
    const options = { signal: release.signal };
    const onMove = (moved: globalThis.PointerEvent) => resizeTo(before + moved.clientX - from);
    edge.addEventListener('pointermove', onMove, options);
    for (const end of ['pointerup', 'pointercancel']) edge.addEventListener(end, () => release.abort(), options);
    event.preventDefault();
  };
  return (
    <th
      ref={cell}
      scope="col"
      style={{ width }}
      onKeyDown={onKeyDown}
      aria-sort={sort?.direction === 'asc' ? 'ascending' : sort?.direction === 'desc' ? 'descending' : undefined}
      className={`sticky top-0 z-10 h-8 border-b border-hairline bg-surface px-2.5 font-semibold text-quiet first:left-0 first:z-20 ${alignment[align]}`}
    >
      {sort ? (
        <button
          type="button"
          title={onResize && `sort by ${name}; Alt and ← → for its width`}
          className="max-w-full truncate rounded-sm align-middle font-semibold hover:text-ink"
          onClick={sort.onToggle}
        >
          {children}
          {sort.direction && <span aria-hidden> {sort.direction === 'asc' ? '↑' : '↓'}</span>}
        </button>
      ) : (
        children
      )}
      {onResize && !isLast && (
        <span
          aria-hidden
          onPointerDown={onPointerDown}
          className="absolute inset-y-1.5 right-0 w-1.5 cursor-col-resize touch-none border-r border-transparent hover:border-control"
        />
      )}
    </th>
  );
}
