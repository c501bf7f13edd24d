import { isOpen, type MatchDecision, type MatchState } from '#core/matching';
import { HistoryButton } from '../changes/history-button';
import { Button } from '../ui/button';

interface DecisionButtonsProps {
  /** What is decided about, for those who do not see the row. */
  readonly name: string;
  readonly state: MatchState;
  /** What it could be joined to; with several, each button says which. */
  readonly targets: readonly { readonly id: number; readonly name: string }[];
  /** The match as changes name it: platform, kind and number. */
  readonly match: string;
  readonly isBusy: boolean;
  readonly onDecide: (decision: MatchDecision, target: number | null) => void;
}

const small = 'h-[26px]! px-2! text-[13px]';

/** Joins, leaves out or opens again, in a row of a grid. */
export function DecisionButtons({ name, state, targets, match, isBusy, onDecide }: DecisionButtonsProps) {
  if (!isOpen(state))
    return (
      <span className="flex gap-1.5">
        <HistoryButton thing={`match ${match}`} called={`the match of ${name}`} className={small} />
        <Button
          writes
          look="quiet"
          aria-label={`Open again ${name}`}
          className={small}
          disabled={isBusy}
          onClick={() => onDecide('open', null)}
        >
          Open again
        </Button>
      </span>
    );
  const isOne = targets.length === 1;
  return (
    <span className="flex gap-1.5">
      {targets.slice(0, 2).map((target) => (
        <Button
          writes
          key={target.id}
          aria-label={isOne ? `Join ${name}` : `Join ${target.name} to ${name}`}
          className={small}
          disabled={isBusy}
          onClick={() => onDecide('joined', target.id)}
        >
          {isOne ? 'Join' : `Join ${target.name}`}
        </Button>
      ))}
      <Button
        writes
        aria-label={`Ignore ${name}`}
        className={small}
        disabled={isBusy}
        onClick={() => onDecide('ignored', null)}
      >
        Ignore
      </Button>
    </span>
  );
}
