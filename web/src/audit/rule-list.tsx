import type { AuditRuleReply, FindingReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { showCount } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';

interface RuleListProps {
  readonly rules: readonly AuditRuleReply[];
  readonly findings: readonly FindingReply[];
  readonly chosen: string | null;
  readonly onChoose: (ruleId: string | null) => void;
}

/** The rules that found something, by family, then those that did not; choosing one filters, choosing it again lets go. */
export function RuleList({ rules, findings, chosen, onChoose }: RuleListProps) {
  const counts = new Map<string, number>();
  for (const { ruleId } of findings) counts.set(ruleId, (counts.get(ruleId) ?? 0) + 1);
  const found = rules.filter(({ id }) => counts.has(id));
  const silent = rules.filter(({ id, isOff }) => !counts.has(id) && !isOff);
  const off = rules.filter(({ isOff }) => isOff);
  const families = [...new Set(found.map(({ family }) => family))];
  const lineOf = (rule: AuditRuleReply) => (
    <RuleLine
      key={rule.id}
      rule={rule}
      count={counts.get(rule.id) ?? 0}
      isChosen={chosen === rule.id}
      onChoose={() => onChoose(chosen === rule.id ? null : rule.id)}
    />
  );
  return (
    <div>
      {families.map((family) => (
        <section key={family} aria-label={family}>
          <h2 className="px-3.5 pt-2 pb-1 text-[12px] text-quiet first-letter:uppercase">{family}</h2>
          {found.filter((rule) => rule.family === family).map(lineOf)}
        </section>
      ))}
      {off.length > 0 && (
        <p className="px-3.5 py-1.5 text-quiet" title={off.map(({ summary }) => summary).join(', ')}>
          {counted(off.length, 'rule')} switched off
        </p>
      )}
      {silent.length > 0 && (
        <details open={found.length === 0 || silent.some(({ id }) => id === chosen)} className="mt-2">
          <summary className="cursor-pointer px-3.5 py-1.5 text-quiet hover:text-ink">
            {counted(silent.length, 'rule')} found nothing
          </summary>
          {silent.map(lineOf)}
        </details>
      )}
    </div>
  );
}

interface RuleLineProps {
  readonly rule: AuditRuleReply;
  readonly count: number;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function RuleLine({ rule: { severity, summary, why }, count, isChosen, onChoose }: RuleLineProps) {
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      title={why}
      onClick={onChoose}
      className={`flex min-h-[28px] w-full items-center gap-2 border-l-[3px] px-3 py-1 text-left leading-tight ${isChosen ? 'border-l-eucalypt bg-eucalypt-soft font-bold' : 'border-l-transparent hover:bg-raised'} ${count === 0 ? 'text-quiet' : ''}`}
    >
      <SeverityDiamond severity={severity} />
      <span className="flex-1">{summary}</span>
      <span className="figures">{showCount(count)}</span>
    </button>
  );
}
