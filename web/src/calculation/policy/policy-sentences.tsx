import type { ReactNode } from 'react';
import { isOfEvidence, methods, scoreFlags, type FlagEffect, type Method, type ScoreFlag } from '#core/calculation';
import type { PolicyBody } from '#contract/calculation';
import { counted } from '#contract/messages';
import { Choice } from '../../ui/field';
import { effectSentence, spreadOf, type optionEffects } from './option-effects';
import { NumberInSentence } from './number-in-sentence';
import { effectsOfFlag, effectWords, flagWords, methodHints, methodWords } from '../words';

interface PolicySentencesProps {
  readonly body: PolicyBody;
  /** What each choice does in the section beside it; undefined while a number cannot be read or no section has scores. */
  readonly effects: ReturnType<typeof optionEffects> | undefined;
  readonly sectionName: string | undefined;
  readonly onChange: (changed: Partial<PolicyBody>) => void;
}

const usualLevels = { most: '4', meets: '3', exceeds: '4', evidence: 1 };

/** A policy as sentences with its choices inside them, each with what it does in one real section; its categories come second. */
export function PolicySentences({ children, ...props }: PolicySentencesProps & { readonly children: ReactNode }) {
  const { body } = props;
  return (
    <div className="space-y-3 text-[14px] leading-[1.7]">
      <MethodSentence {...props} />
      {body.levels && <LevelSentence {...props} levels={body.levels} />}
      {children}
      <FlagSentences {...props} />
      <CapSentence {...props} />
    </div>
  );
}

function MethodSentence({ body, effects, sectionName, onChange }: PolicySentencesProps) {
  const choose = (method: Method) =>
    onChange({ method, levels: isOfEvidence(method) ? (body.levels ?? usualLevels) : null });
  const spread = effects && spreadOf(effects.rows);
  return (
    <div>
      <p>
        Each grade is{' '}
        <Choice label="Method" value={body.method} onChange={(event) => choose(event.target.value as Method)}>
          {methods.map((method) => (
            <option key={method} value={method}>
              {methodWords[method]}
            </option>
          ))}
        </Choice>
        {body.method === 'decaying' && (
          <>
            , the newest counting{' '}
            <NumberInSentence
              label="What the newest counts"
              value={body.newestShare}
              onChange={(newestShare) => onChange({ newestShare: newestShare ?? '' })}
            />{' '}
            % against all before it
          </>
        )}
        .
      </p>
      <Hint>
        {methodHints[body.method]}
        {spread && ` ${sectionName}: ${spread.mean} % on average, from ${spread.least} to ${spread.most}.`}
      </Hint>
    </div>
  );
}

function LevelSentence({ levels, onChange }: PolicySentencesProps & { levels: NonNullable<PolicyBody['levels']> }) {
  const change = (field: 'most' | 'meets' | 'exceeds') => (text: string | null) =>
    onChange({ levels: { ...levels, [field]: text ?? '' } });
  return (
    <div>
      <p>
        Levels go from 0 to <NumberInSentence label="Highest level" value={levels.most} onChange={change('most')} />;{' '}
        <NumberInSentence label="Level that meets" value={levels.meets} onChange={change('meets')} /> meets and{' '}
        <NumberInSentence label="Level that exceeds" value={levels.exceeds} onChange={change('exceeds')} /> exceeds. A
        category says something from{' '}
        <Choice
          label="Pieces of evidence"
          value={levels.evidence}
          onChange={(event) => onChange({ levels: { ...levels, evidence: Number(event.target.value) } })}
        >
          {[1, 2, 3, 4, 5, 6, 8, 10].map((count) => (
            <option key={count} value={count}>
              {counted(count, 'score')}
            </option>
          ))}
        </Choice>{' '}
        on.
      </p>
      <Hint>Scores out of anything but {levels.most} are from another level scale: found, and not averaged in.</Hint>
    </div>
  );
}

function FlagSentences({ body, effects, onChange }: PolicySentencesProps) {
  const choose = (flag: ScoreFlag, effect: FlagEffect) => onChange({ flags: { ...body.flags, [flag]: effect } });
  return (
    <ul aria-label="Flags" className="divide-y divide-hairline border-y border-hairline">
      {scoreFlags.map((flag) => {
        const found = effects?.flag(flag);
        const choices = effectsOfFlag[flag];
        return (
          <li key={flag} className="grid grid-cols-[290px_minmax(0,1fr)] items-baseline gap-3 py-1 text-[13px]">
            <span>
              A score that is {flagWords[flag]}{' '}
              {choices.length === 1 ? (
                <b>{effectWords[choices[0]!]}</b>
              ) : (
                <Choice
                  label={`Effect of ${flagWords[flag]}`}
                  value={body.flags[flag]}
                  onChange={(event) => choose(flag, event.target.value as FlagEffect)}
                >
                  {choices.map((effect) => (
                    <option key={effect} value={effect}>
                      {effectWords[effect]}
                    </option>
                  ))}
                </Choice>
              )}
              .
            </span>
            <span className="text-[12px] leading-snug text-quiet">
              {found && found.scores === 0 && 'None here.'}
              {found && found.scores > 0 && (
                <>
                  {counted(found.scores, 'score')} here
                  {found.other && `; against “${effectWords[found.other]}” it ${effectSentence(found.effect)}`}.
                </>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

function CapSentence({ body, effects, onChange }: PolicySentencesProps) {
  return (
    <div>
      <p>
        The overall percentage reaches at most{' '}
        <NumberInSentence
          label="Limit on the overall percentage"
          value={body.cap}
          empty="anything"
          onChange={(cap) => onChange({ cap })}
        />
        {body.cap !== null && ' %'}.
      </p>
      <Hint>
        {body.cap === null
          ? 'Extra points may carry a grade past 100 %.'
          : effects?.cap
            ? `The limit ${effectSentence(effects.cap)}.`
            : 'Extra points raise nothing further.'}
      </Hint>
    </div>
  );
}

function Hint({ children }: { children: ReactNode }) {
  return <p className="text-[12px] leading-snug text-quiet">{children}</p>;
}
