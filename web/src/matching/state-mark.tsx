import type { MatchState } from '#core/matching';
import { stateWords } from './words';

const looks: Record<MatchState, string> = {
  joined: 'border-eucalypt bg-eucalypt',
  proposed: 'border-wattle-fill bg-[linear-gradient(90deg,var(--wattle-fill)_50%,transparent_50%)]',
  conflicting: 'border-waratah bg-waratah',
  unmatched: 'border-waratah',
  ignored: 'border-control bg-control',
};

/** A disc that fills as something gets joined, with the word beside it. */
export function StateMark({ state, confidence }: { state: MatchState; confidence: number | null }) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <span aria-hidden className={`size-2.5 shrink-0 rounded-full border-[1.5px] ${looks[state]}`} />
      {state === 'proposed' && confidence !== null ? (
        <>
          proposed <span className="figures text-[12px]">{confidence} %</span>
        </>
      ) : (
        <span className={state === 'unmatched' || state === 'conflicting' ? 'text-waratah' : ''}>
          {state === 'unmatched' ? 'unmatched' : stateWords[state]}
        </span>
      )}
    </span>
  );
}
