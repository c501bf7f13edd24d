import { codeParts, type CodePart } from '#core/codes';
import type { CodeBody } from '#contract/codes';
import { Button } from '../ui/button';
import { CheckField, Choice, TextField } from '../ui/field';
import { Panel } from '../ui/panel';
import { partWords } from '../scales/words';

interface CodeEffectsProps {
  readonly code: CodeBody;
  readonly labels: readonly string[];
  readonly others: readonly string[];
  readonly onChange: (change: Partial<CodeBody>) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}

const smallInput = 'figures h-7 w-[58px] rounded border border-control bg-surface px-1.5 text-right';

/** What a code does, effect by effect. */
export function CodeEffects({ code, labels, others, onChange, onMove, onRemove }: CodeEffectsProps) {
  const check = (key: keyof CodeBody, label: string) => (
    <CheckField
      label={label}
      checked={code[key] as boolean}
      onChange={(event) => onChange({ [key]: event.target.checked })}
    />
  );
  return (
    <Panel label="Effects of the code" className="space-y-3 px-4 py-3">
      <div className="grid grid-cols-[100px_1fr] gap-3">
        <TextField
          label="Code"
          value={code.code}
          maxLength={8}
          onChange={(event) => onChange({ code: event.target.value.toUpperCase() })}
        />
        <TextField
          label="Means"
          value={code.meaning}
          maxLength={60}
          onChange={(event) => onChange({ meaning: event.target.value })}
        />
      </div>
      <p className="leading-[1.9]">
        As a part of another item it{' '}
        <Choice
          label="As a part"
          value={code.asPart}
          onChange={(event) => {
            const asPart = event.target.value as CodePart;
            onChange({ asPart, countsAs: asPart === 'counts' ? (code.countsAs ?? '0') : null });
          }}
        >
          {codeParts.map((part) => (
            <option key={part} value={part}>
              {partWords[part]}
            </option>
          ))}
        </Choice>
        {code.asPart === 'counts' && (
          <>
            {' '}
            <input
              aria-label="Percentage it counts as"
              value={(code.countsAs ?? '').replace(/\.00$/, '')}
              onChange={(event) => onChange({ countsAs: event.target.value.trim() })}
              className={smallInput}
            />{' '}
            %
          </>
        )}
        .
      </p>
      <div className="space-y-1.5">
        {check('isFailing', 'counts as failing')}
        {check('forbidsPercent', 'empties the percentage')}
        {check('needsLastDate', 'needs a last date of attendance')}
        {check('needsFirstDay', 'that date is the first day of the period, with no hours')}
        {check('triesCredit', 'the credits count as attempted')}
        {check('earnsCredit', 'earns the credits')}
        {check('countsInGpa', 'counts in the GPA')}
        {check('onTranscript', 'is shown on the transcript')}
      </div>
      <p className="leading-[1.9]">
        It turns into{' '}
        <Choice
          label="Turns into"
          value={code.lapsesInto ?? ''}
          onChange={(event) => {
            const lapsesInto = event.target.value || null;
            onChange({ lapsesInto, lapsesAfterDays: lapsesInto ? (code.lapsesAfterDays ?? 30) : null });
          }}
        >
          <option value="">nothing else by itself</option>
          {[...labels, ...others.filter(Boolean)].map((each) => (
            <option key={each} value={each}>
              {each}
            </option>
          ))}
        </Choice>
        {code.lapsesInto && (
          <>
            {' '}
            after{' '}
            <input
              aria-label="Days until it turns"
              type="number"
              min={1}
              value={code.lapsesAfterDays ?? ''}
              onChange={(event) => onChange({ lapsesAfterDays: Number(event.target.value) || null })}
              className={smallInput}
            />{' '}
            days from the end of the period
          </>
        )}
        .
      </p>
      {check('isOff', 'switched off: posted grades keep it, and it cannot be posted any more')}
      <div className="flex gap-2 border-t border-hairline pt-3">
        <Button writes onClick={() => onMove(-1)}>
          Move up
        </Button>
        <Button writes onClick={() => onMove(1)}>
          Move down
        </Button>
        <Button look="danger" className="ml-auto" onClick={onRemove}>
          Remove from the list
        </Button>
      </div>
    </Panel>
  );
}
