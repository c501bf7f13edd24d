import type { KeyboardEvent, PointerEvent } from 'react';
import { addDays, type Day, type PeriodEdge } from '#core/calendar';
import type { PeriodBody } from '#contract/calendar';
import { showDay } from '../ui/format';
import type { TimeAxis } from '../shell/time-axis';

interface EdgeHandleProps {
  readonly period: PeriodBody;
  readonly edge: PeriodEdge;
  readonly axis: TimeAxis;
  /** A move within one drag joins the step before it. */
  readonly onMove: (day: Day, isSameStep: boolean) => void;
}

/** The first or last day of a period as something to drag, or to move by a day with the arrows, by a week with Shift. */
export function EdgeHandle({ period, edge, axis, onMove }: EdgeHandleProps) {
  const words = edge === 'startsOn' ? 'First day' : 'Last day';
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    const handle = event.currentTarget;
    const line = handle.parentElement!.parentElement!.parentElement!.getBoundingClientRect();
    handle.setPointerCapture(event.pointerId);
    let hasMoved = false;
    let last = period[edge];
    const onPointerMove = (move: globalThis.PointerEvent) => {
      const day = axis.dayAt((move.clientX - line.left) / line.width, edge === 'endsOn');
      if (day === last) return;
      last = day as Day;
      onMove(last, hasMoved);
      hasMoved = true;
    };
    handle.addEventListener('pointermove', onPointerMove);
    handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', onPointerMove), {
      once: true,
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onMove(addDays(period[edge], by * (event.shiftKey ? 7 : 1)), false);
  };
  return (
    <button
      type="button"
      role="slider"
      aria-label={`${words} of ${period.name}`}
      aria-valuenow={Date.parse(period[edge]) / 86_400_000}
      aria-valuetext={showDay(period[edge])}
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
      className={`absolute inset-y-0 w-2 cursor-ew-resize touch-none rounded-[3px] hover:bg-ink/40 focus-visible:bg-ink/40 ${edge === 'startsOn' ? 'left-0' : 'right-0'}`}
    />
  );
}
