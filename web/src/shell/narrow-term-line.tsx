import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { PeriodReply } from '#contract/calendar';
import { Choice } from '../ui/field';

interface NarrowTermLineProps {
  readonly periods: readonly PeriodReply[];
  readonly periodId: number;
  readonly onChoose: (id: number) => void;
  readonly onStep: (by: 1 | -1) => void;
}

/** The term line where there is no room to draw it, as at 200 %: the chosen period by name, between its neighbours. */
export function NarrowTermLine({ periods, periodId, onChoose, onStep }: NarrowTermLineProps) {
  return (
    <div className="hidden min-w-0 items-center gap-1 max-[860px]:flex">
      <Step says="The period before" onPress={() => onStep(-1)}>
        <ChevronLeft size={16} aria-hidden />
      </Step>
      <Choice label="Period" value={periodId} onChange={({ target }) => onChoose(Number(target.value))}>
        {periods.map(({ id, name, posting }) => (
          <option key={id} value={id}>
            {posting
              ? `${name}, ${posting.sealedAt ? 'sealed' : `${posting.sectionsComplete}/${posting.sections}`}`
              : name}
          </option>
        ))}
      </Choice>
      <Step says="The next period" onPress={() => onStep(1)}>
        <ChevronRight size={16} aria-hidden />
      </Step>
    </div>
  );
}

function Step({ says, onPress, children }: { says: string; onPress: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={says}
      onClick={onPress}
      className="grid size-8 shrink-0 place-items-center rounded-md hover:bg-eucalypt-soft"
    >
      {children}
    </button>
  );
}
