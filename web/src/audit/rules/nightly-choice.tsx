import type { RuleSettingsReply } from '#contract/audit';
import { Choice } from '../../ui/field';
import { nightTimes } from '../../ui/night-times';

interface NightlyChoiceProps {
  readonly nightly: RuleSettingsReply['nightly'];
  readonly isHeld: boolean;
  readonly onChoose: (at: string | null) => void;
}

/** When the periods of the school are audited by themselves, as a sentence. */
export function NightlyChoice({ nightly, isHeld, onChoose }: NightlyChoiceProps) {
  return (
    <p className="px-1 text-[13px] leading-6">
      While grades are posted, a period{' '}
      <Choice
        label="Nightly audit"
        value={nightly?.at ?? ''}
        disabled={isHeld}
        onChange={({ target }) => onChoose(target.value || null)}
      >
        <option value="">is audited when somebody asks for it</option>
        {nightTimes(nightly?.at ?? null).map((time) => (
          <option key={time} value={time}>
            is audited every night at {time}
          </option>
        ))}
      </Choice>
      {nightly && <>, for {nightly.setBy}</>}.
    </p>
  );
}
