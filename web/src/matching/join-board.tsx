import { useCallback, useEffect, useRef, useState } from 'react';
import type { MatchState } from '#core/matching';
import type { TargetReply } from '#contract/matching';
import { counted } from '#contract/messages';
import { showCount } from '../ui/format';
import { sayRow, type JoinRow } from './join-rows';
import { sayWeights } from './words';

interface JoinBoardProps {
  readonly rows: readonly JoinRow[];
  readonly targets: readonly TargetReply[];
  readonly chosenKey: string | null;
  readonly onChoose: (key: string) => void;
  /** What stands over the two sides. */
  readonly heads: readonly [theirs: string, ours: string];
}

const rowPitch = 38;
const [leastTargetPitch, mostTargetPitch] = [30, 62];
const headHeight = 38;

/** Theirs on the left, ours on the right, and the joins drawn between: whole where decided, dashed where proposed. */
export function JoinBoard({ rows, targets, chosenKey, onChoose, heads }: JoinBoardProps) {
  const chosen = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (chosenKey !== null) chosen.current?.scrollIntoView({ block: 'nearest' });
  }, [chosenKey]);
  const scroller = useRef<HTMLDivElement>(null);
  const [view, setView] = useState({ top: 0, height: 400 });
  const look = useCallback(() => {
    const { scrollTop = 0, clientHeight = 400 } = scroller.current ?? {};
    setView({ top: scrollTop, height: clientHeight - headHeight });
  }, []);
  useEffect(() => {
    look();
    window.addEventListener('resize', look);
    return () => window.removeEventListener('resize', look);
  }, [look]);
  const pitch = Math.min(mostTargetPitch, Math.max(leastTargetPitch, view.height / Math.max(1, targets.length)));
  const height = Math.max(rows.length * rowPitch, targets.length * pitch);
  const inView = Math.min(view.height, height);
  const above = Math.max(0, (inView - targets.length * pitch) / 2);
  const targetTop = Math.min(view.top + above, height - targets.length * pitch);
  const targetAt = new Map(targets.map(({ key }, at) => [key, targetTop + (at + 0.5) * pitch]));
  const nameOf = (key: string) => targets.find((target) => target.key === key)?.name ?? key;
  return (
    <div ref={scroller} onScroll={look} className="min-h-0 flex-1 overflow-auto px-4 pb-3">
      <div className="sticky top-0 z-10 flex bg-surface py-2 text-[13px] text-quiet">
        <span className="flex-1">{heads[0]}</span>
        <span className="w-[216px]">{heads[1]}</span>
      </div>
      <div className="relative mt-1 grid grid-cols-[290px_250px_1fr_216px]" style={{ height }}>
        <ul aria-label={heads[0]}>
          {rows.map((row) => (
            <li key={row.key} style={{ height: rowPitch }}>
              <button
                ref={row.key === chosenKey ? chosen : undefined}
                type="button"
                aria-pressed={row.key === chosenKey}
                onClick={() => onChoose(row.key)}
                className={`flex h-[32px] w-full items-center gap-2 rounded-md border px-2.5 text-left aria-pressed:outline-2 aria-pressed:outline-offset-1 aria-pressed:outline-eucalypt ${boxLook[row.state]}`}
              >
                <b className="min-w-0 flex-1 truncate font-semibold">{row.name}</b>
                {row.kind !== 'letter' && (
                  <span
                    className="figures w-8 text-right text-[12px] text-quiet"
                    title={counted(row.ids.length, 'class')}
                  >
                    {showCount(row.ids.length)}
                  </span>
                )}
                {row.kind === 'group' && (
                  <span className="figures w-16 text-right text-[12px] whitespace-nowrap text-quiet">
                    {sayWeights(row.weights)}
                  </span>
                )}
              </button>
            </li>
          ))}
        </ul>
        <ul aria-hidden>
          {rows.map((row) => (
            <li
              key={row.key}
              className="flex items-center gap-1.5 px-2.5 text-[12.5px] leading-tight"
              style={{ height: rowPitch - 6, marginBottom: 6 }}
            >
              {row.target !== null && <span className="-mx-2.5 flex-1 bg-eucalypt" style={{ height: widthOf(row) }} />}
              {row.state === 'proposed' && row.best && (
                <b className="figures whitespace-nowrap">{row.best.confidence} %</b>
              )}
              {row.target === null && (
                <span className={`line-clamp-2 ${wordLook[row.state]}`}>{sayRow(row, nameOf)}</span>
              )}
            </li>
          ))}
        </ul>
        <Joins rows={rows} targetAt={targetAt} height={height} chosenKey={chosenKey} />
        <ul aria-label={heads[1]} className="absolute right-0 w-[216px]" style={{ top: targetTop }}>
          {targets.map((target, at) => (
            <li key={target.key} className="flex items-center" style={{ height: pitch }}>
              <div className="flex h-[min(36px,calc(100%-4px))] w-full items-center gap-2 rounded-md border border-l-[4px] border-hairline border-l-eucalypt bg-surface px-2.5">
                {at < 9 && <kbd className="figures text-[11px] text-quiet">{at + 1}</kbd>}
                <b className="min-w-0 flex-1 truncate font-semibold">{target.name}</b>
                <span className="figures text-[12px]">{target.weight === null ? '' : `${target.weight} %`}</span>
              </div>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

const boxLook: Record<MatchState, string> = {
  joined: 'border-hairline bg-surface',
  proposed: 'border-wattle-fill bg-surface',
  conflicting: 'border-waratah bg-waratah-soft',
  unmatched: 'border-waratah bg-surface',
  ignored: 'border-dashed border-control bg-surface text-quiet line-through',
};
const wordLook: Record<MatchState, string> = {
  joined: 'text-quiet',
  proposed: 'text-wattle',
  conflicting: 'text-waratah',
  unmatched: 'text-waratah',
  ignored: 'text-quiet',
};

interface JoinsProps {
  readonly rows: readonly JoinRow[];
  readonly targetAt: ReadonlyMap<string, number>;
  readonly height: number;
  readonly chosenKey: string | null;
}

function Joins({ rows, targetAt, height, chosenKey }: JoinsProps) {
  return (
    <svg aria-hidden className="w-full" height={height} viewBox={`0 0 100 ${height}`} preserveAspectRatio="none">
      {rows.flatMap((row, at) =>
        endsOf(row).map(({ key, isJoined }) => {
          const [from, to] = [at * rowPitch + 16, targetAt.get(key)];
          if (to === undefined) return null;
          const tone = isJoined
            ? 'stroke-eucalypt'
            : row.state === 'conflicting'
              ? 'stroke-waratah'
              : 'stroke-wattle-fill';
          const isFaint = chosenKey !== null && chosenKey !== row.key;
          return (
            <path
              key={`${row.key}/${key}`}
              d={`M0 ${from}C50 ${from} 50 ${to} 100 ${to}`}
              fill="none"
              vectorEffect="non-scaling-stroke"
              strokeWidth={widthOf(row)}
              strokeDasharray={isJoined ? undefined : '5 4'}
              className={`${tone} ${isFaint && !isJoined ? 'opacity-60' : ''}`}
            />
          );
        }),
      )}
    </svg>
  );
}

/** Of a join, in pixels: the more classes, the broader. */
function widthOf({ ids }: JoinRow): number {
  return Math.min(7, 1.5 + ids.length / 15);
}

function endsOf({ state, target, best, between }: JoinRow): { key: string; isJoined: boolean }[] {
  if (target !== null) return [{ key: target, isJoined: true }];
  if (state === 'proposed' && best) return [{ key: best.key, isJoined: false }];
  return state === 'conflicting' ? between.map(({ key }) => ({ key, isJoined: false })) : [];
}
