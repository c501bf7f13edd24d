import { useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { CutBand, Histogram } from '#core/scales';
import { showCount, showLabel } from '../ui/format';
import { bandTint } from '../ui/band-tint';
import { createRulerAxis } from './ruler-axis';

interface RulerProps {
  /** From the highest cut-off down. */
  readonly bands: readonly CutBand[];
  readonly savedBands: readonly CutBand[];
  readonly histogram: Histogram;
  /** The value at the right end: 100, or the highest level. */
  readonly top: number;
  readonly digits: number;
  readonly caption: string;
  readonly chosen: number | null;
  readonly onChoose: (index: number) => void;
  /** A move within one drag joins the step before it. */
  readonly onMove: (index: number, wanted: number, isSameStep: boolean) => void;
}

const height = { numbers: 26, band: 44, grips: 14, bars: 104 };

/** The scale as a number line whose cut-offs can be moved, over the histogram of the period's real percents. */
export function Ruler({ bands, savedBands, histogram, top, digits, caption, chosen, onChoose, onMove }: RulerProps) {
  const line = useRef<HTMLDivElement>(null);
  const axis = useMemo(
    () => createRulerAxis(Number(formatDecimal(savedBands.at(-2)?.lowest ?? decimalOrThrow('0'))), top),
    [savedBands, top],
  );
  const lowest = (index: number) => Number(formatDecimal(bands[index]!.lowest));
  const upper = (index: number) => (index === 0 ? top : lowest(index - 1));
  const left = (value: number) => `${axis.at(value) * 100}%`;
  const most = Math.max(1, ...histogram.counts);
  const savedAt = (label: string) => savedBands.find((band) => band.label === label)?.lowest;

  const valueUnder = (event: PointerEvent) => {
    const box = line.current!.getBoundingClientRect();
    return axis.valueAt(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)));
  };
  const onGripDown = (index: number) => (event: PointerEvent<HTMLElement>) => {
    const grip = event.currentTarget;
    grip.setPointerCapture(event.pointerId);
    onChoose(index);
    let hasMoved = false;
    const onPointerMove = (move: globalThis.PointerEvent) => {
      onMove(index, valueUnder(move as unknown as PointerEvent), hasMoved);
      hasMoved = true;
    };
    grip.addEventListener('pointermove', onPointerMove);
    grip.addEventListener('pointerup', () => grip.removeEventListener('pointermove', onPointerMove), { once: true });
  };
  const onGripKey = (index: number) => (event: KeyboardEvent) => {
    const step = 10 ** -digits * (event.shiftKey ? 10 : 1);
    const by = { ArrowRight: step, ArrowUp: step, ArrowLeft: -step, ArrowDown: -step }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onMove(index, lowest(index) + by, false);
  };

  return (
    <div className="px-6 pt-3 pb-4">
      <div
        ref={line}
        className="relative"
        style={{ height: height.numbers + height.band + height.grips + height.bars }}
      >
        <span className="figures absolute top-0 left-0 text-[12px] text-quiet">0</span>
        <span className="figures absolute top-0 right-0 text-[12px] text-quiet">{top}</span>
        {bands.map((band, index) => {
          const { fill, ink } = bandTint(index, bands.length, band.passes);
          const width = `${(axis.at(upper(index)) - axis.at(lowest(index))) * 100}%`;
          return (
            <div
              key={index}
              style={{
                left: left(lowest(index)),
                width,
                top: height.numbers,
                height: height.band,
                background: fill,
                color: ink,
              }}
              className="absolute grid place-items-center overflow-hidden border-r border-surface text-[16px] font-bold"
            >
              {showLabel(band.label)}
            </div>
          );
        })}
        <div
          aria-hidden
          className="absolute inset-x-0"
          style={{ top: height.numbers + height.band + height.grips, height: height.bars }}
        >
          {histogram.counts.map((count, at) => (
            <HistogramBar
              key={at}
              count={count}
              share={count / most}
              from={axis.at(at * histogram.step)}
              to={axis.at(Math.min(top * 1.004, (at + 1) * histogram.step))}
              bands={bands}
              value={Math.round(at * histogram.step * 10) / 10}
              unit={histogram.step < 1 ? '' : ' %'}
            />
          ))}
        </div>
        {axis.bend > 0 && (
          <span
            aria-hidden
            title={`drawn narrower below ${axis.bend}`}
            style={{ left: left(axis.bend), top: height.numbers - 2 }}
            className="absolute -translate-x-1/2 -translate-y-full text-[12px] text-quiet"
          >
            ≈
          </span>
        )}
        {bands.slice(0, -1).map((band, index) => {
          const saved = savedAt(band.label);
          const isMoved =
            saved !== undefined && formatDecimal(saved) !== '' && Number(formatDecimal(saved)) !== lowest(index);
          return (
            <div key={index}>
              {isMoved && (
                <span
                  aria-hidden
                  style={{
                    left: left(Number(formatDecimal(saved))),
                    top: height.numbers,
                    height: height.band + height.grips + height.bars,
                  }}
                  className="absolute border-l border-dashed border-wattle-fill"
                />
              )}
              <button
                type="button"
                role="slider"
                aria-label={`Cut-off of ${band.label}`}
                aria-valuemin={0}
                aria-valuemax={top}
                aria-valuenow={lowest(index)}
                aria-valuetext={`${band.label} begins at ${lowest(index)}`}
                onPointerDown={onGripDown(index)}
                onKeyDown={onGripKey(index)}
                onFocus={() => onChoose(index)}
                style={{ left: left(lowest(index)), height: height.numbers + height.band + height.grips + height.bars }}
                className={`group absolute top-0 w-9 -translate-x-1/2 cursor-ew-resize touch-none ${isMoved ? 'text-wattle' : 'text-ink'}`}
              >
                <span
                  className={`figures absolute inset-x-0 top-0 flex justify-center text-[12px] ${isMoved || chosen === index ? 'font-bold' : ''}`}
                >
                  {lowest(index)}
                </span>
                <span
                  aria-hidden
                  className={`absolute top-[22px] bottom-0 left-1/2 w-px ${isMoved ? 'bg-wattle-fill' : chosen === index ? 'bg-ink' : 'bg-control opacity-40 group-hover:bg-ink group-hover:opacity-100'}`}
                />
                <svg
                  aria-hidden
                  width="12"
                  height="10"
                  viewBox="0 0 12 10"
                  style={{ top: height.numbers + height.band + 2 }}
                  className="absolute left-1/2 -translate-x-1/2"
                >
                  <path d="M6 0 12 10H0Z" fill="currentColor" />
                </svg>
              </button>
            </div>
          );
        })}
        <span className="absolute bottom-0 left-0 max-w-[150px] text-[12px] leading-snug text-quiet">{caption}</span>
      </div>
    </div>
  );
}

interface HistogramBarProps {
  readonly count: number;
  readonly share: number;
  readonly from: number;
  readonly to: number;
  readonly value: number;
  readonly unit: string;
  readonly bands: readonly CutBand[];
}

function HistogramBar({ count, share, from, to, value, unit, bands }: HistogramBarProps) {
  if (count === 0) return null;
  const index = bands.findIndex((band) => Number(formatDecimal(band.lowest)) <= value);
  const { fill } = bandTint(Math.max(0, index), bands.length, bands[index]?.passes ?? false);
  return (
    <div
      title={`${showCount(count)} at ${value}${unit}`}
      style={{
        left: `${from * 100}%`,
        width: `calc(${(to - from) * 100}% - 1px)`,
        height: `${Math.max(2, share * 100)}%`,
        background: fill,
      }}
      className="absolute top-0 rounded-b-[1px]"
    />
  );
}
