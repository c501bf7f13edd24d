import type { ReadinessReply } from '#contract/transcripts';
import { showInstant } from '../ui/format';

const radius = 78;
const turn = 2 * Math.PI * radius;

/** The seal: its ring closes with every condition met, and it is struck when the period is sealed. */
export function SealMark({ readiness, periodName }: { readiness: ReadinessReply; periodName: string }) {
  const needed = readiness.steps.filter(({ isNeeded }) => isNeeded);
  const share = readiness.seal ? 1 : needed.filter(({ isDone }) => isDone).length / needed.length;
  return (
    <figure className="grid place-items-center rounded-md border border-hairline bg-surface px-4 py-6 text-center">
      <svg
        width="200"
        height="200"
        viewBox="0 0 200 200"
        role="img"
        aria-label={
          readiness.seal ? 'sealed' : `${Math.round(share * needed.length)} of ${needed.length} conditions met`
        }
      >
        <circle
          cx="100"
          cy="100"
          r={radius}
          fill={readiness.seal ? 'var(--eucalypt)' : 'none'}
          stroke="var(--hairline)"
          strokeWidth="10"
        />
        <circle
          cx="100"
          cy="100"
          r={radius}
          fill="none"
          stroke="var(--eucalypt)"
          strokeWidth="10"
          strokeDasharray={`${share * turn} ${turn}`}
          transform="rotate(-90 100 100)"
        />
        <path
          d="M62 132v-32a38 38 0 0 1 76 0v32a4 4 0 0 1-4 4h-14v-22a20 20 0 0 0-40 0v22H66a4 4 0 0 1-4-4z"
          fill={readiness.seal ? 'var(--on-eucalypt)' : 'var(--hairline)'}
        />
      </svg>
      <figcaption className="mt-3 text-[13px] text-quiet">
        {readiness.seal
          ? `${periodName}, ${showInstant(readiness.seal.at)}`
          : `${Math.round(share * needed.length)} of ${needed.length} conditions met`}
      </figcaption>
    </figure>
  );
}
