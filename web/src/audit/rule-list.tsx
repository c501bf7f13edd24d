import type { AuditRuleReply, FindingReply } from '#contract/audit';
import { showCount } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';

interface RuleListProps {
  readonly rules: readonly AuditRuleReply[];
  readonly findings: readonly FindingReply[];
  readonly chosen: string | null;
  readonly onChoose: (ruleId: string | null) => void;
}

/** The rules by family with what each found, those that found nothing below; choosing one filters, choosing it again lets go. */
export function RuleList({ rules, findings, chosen, onChoose }: RuleListProps) {
  const families = [...new Set(rules.map(({ family }) => family))];
  return (
    <div className="overflow-auto border-r border-hairline py-2 text-[13px]">
      {families.map((family) => (
        <section key={family} aria-label={family}>
          <h2 className="px-3.5 pt-2 pb-1 text-[12px] text-quiet first-letter:uppercase">{family}</h2>
          {rules
            .filter((rule) => rule.family === family)
            .map(({ id, severity, summary, why }) => {
              const count = findings.filter(({ ruleId }) => ruleId === id).length;
              const isChosen = chosen === id;
              return (
                <button
                  key={id}
                  type="button"
                  aria-pressed={isChosen}
                  title={why}
                  onClick={() => onChoose(isChosen ? null : id)}
                  className={`flex min-h-[28px] w-full items-center gap-2 border-l-[3px] px-3 py-1 text-left leading-tight ${isChosen ? 'border-l-eucalypt bg-eucalypt-soft font-bold' : 'border-l-transparent hover:bg-raised'} ${count === 0 ? 'text-quiet' : ''}`}
                >
                  <SeverityDiamond severity={severity} />
                  <span className="flex-1">{summary}</span>
                  <span className="figures">{showCount(count)}</span>
                </button>
              );
            })}
        </section>
      ))}
    </div>
  );
}
