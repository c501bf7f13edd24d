import { courseLengths, courseLevels } from '#core/courses';
import type { RuleChoicesBody, RuleReply } from '#contract/report-items';
import { Choice } from '../ui/field';
import { eachPeriod, lengthWords, levelWords } from './words';

interface RuleSentenceProps {
  readonly rule: RuleReply;
  readonly choices: RuleChoicesBody;
  readonly itemName: string;
  readonly schoolName: string;
  readonly departments: readonly string[];
  readonly onChange: (choices: RuleChoicesBody) => void;
}

const any = '';

/** A rule as one sentence, its choices inside it. */
export function RuleSentence({ rule, choices, itemName, schoolName, departments, onChange }: RuleSentenceProps) {
  const chosen = <Value extends string>(value: Value): Value | null => (value === any ? null : value);
  return (
    <p className="text-[16px] leading-[1.9]">
      Every{' '}
      <Choice
        label="Length"
        value={choices.length ?? any}
        onChange={(event) => onChange({ ...choices, length: chosen(event.target.value as never) })}
      >
        <option value={any}>long or short</option>
        {courseLengths.map((length) => (
          <option key={length} value={length}>
            {lengthWords[length]}
          </option>
        ))}
      </Choice>{' '}
      <Choice
        label="Level"
        value={choices.level ?? any}
        onChange={(event) => onChange({ ...choices, level: chosen(event.target.value as never) })}
      >
        <option value={any}>course of any level</option>
        {courseLevels.map((level) => (
          <option key={level} value={level}>
            {levelWords[level]} course
          </option>
        ))}
      </Choice>{' '}
      in{' '}
      <Choice
        label="Department"
        value={choices.department ?? any}
        onChange={(event) => onChange({ ...choices, department: chosen(event.target.value) })}
      >
        <option value={any}>all of {schoolName}</option>
        {departments.map((department) => (
          <option key={department} value={department}>
            {department}
          </option>
        ))}
      </Choice>{' '}
      reports <b>{itemName}</b> in <b>{eachPeriod[rule.periodKind]}</b> it runs.
    </p>
  );
}
