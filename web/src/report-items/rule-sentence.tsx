import { courseLengths, courseLevels } from '#core/courses';
import type { ReportItemsReply, RuleBody } from '#contract/report-items';
import { Choice } from '../ui/field';
import { lengthWords, levelWords, postedInWords } from './words';

interface RuleSentenceProps {
  readonly rule: RuleBody;
  readonly reply: ReportItemsReply;
  readonly schoolName: string;
  readonly onChange: (rule: RuleBody) => void;
}

const any = '';

/** A rule as one sentence, its choices inside it. */
export function RuleSentence({ rule, reply, schoolName, onChange }: RuleSentenceProps) {
  const item = reply.items.find(({ id }) => id === rule.itemId);
  const choose = (field: keyof RuleBody) => (event: { target: { value: string } }) =>
    onChange({ ...rule, [field]: event.target.value === any ? null : event.target.value });
  return (
    <p className="text-[13px] leading-[1.75]">
      Every{' '}
      <Choice label="Length" value={rule.length ?? any} onChange={choose('length')}>
        <option value={any}>long or short</option>
        {courseLengths.map((length) => (
          <option key={length} value={length}>
            {lengthWords[length]}
          </option>
        ))}
      </Choice>{' '}
      <Choice label="Kind of course" value={rule.kind ?? any} onChange={choose('kind')}>
        <option value={any}>course</option>
        {reply.kinds.map((kind) => (
          <option key={kind} value={kind}>
            {kind} course
          </option>
        ))}
      </Choice>{' '}
      of{' '}
      <Choice label="Level" value={rule.level ?? any} onChange={choose('level')}>
        <option value={any}>any level</option>
        {courseLevels.map((level) => (
          <option key={level} value={level}>
            {levelWords[level]} level
          </option>
        ))}
      </Choice>{' '}
      in{' '}
      <Choice label="Department" value={rule.department ?? any} onChange={choose('department')}>
        <option value={any}>all of {schoolName}</option>
        {reply.departments.map((department) => (
          <option key={department} value={department}>
            {department}
          </option>
        ))}
      </Choice>{' '}
      <Choice label="Effect" value={rule.effect} onChange={choose('effect')}>
        <option value="reports">reports</option>
        <option value="omits">does not report</option>
      </Choice>{' '}
      <Choice
        label="Item"
        value={rule.itemId}
        onChange={(event) => onChange({ ...rule, itemId: Number(event.target.value) })}
      >
        {reply.items.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
      {item && ` in ${postedInWords(item, reply.periods)}`}.
    </p>
  );
}
