import type { AuditRuleReply, FindingReply } from '#contract/audit';
import { showCount } from '../ui/format';
import { groupings, groupOf, isSettled, type Grouping } from './order-findings';
import { RuleList } from './rule-list';

interface FindingGroupsProps {
  readonly by: Grouping;
  readonly rules: readonly AuditRuleReply[];
  readonly findings: readonly FindingReply[];
  readonly chosen: string | null;
  readonly onGroupBy: (by: Grouping) => void;
  readonly onChoose: (group: string | null) => void;
}

/** The findings gathered by rule, course, teacher or student; choosing a group filters, choosing it again lets go. */
export function FindingGroups({ by, rules, findings, chosen, onGroupBy, onChoose }: FindingGroupsProps) {
  const groups = by === 'rule' ? [] : groupsOf(findings, by);
  return (
    <div className="col-span-2 flex max-h-[120px] min-h-0 flex-col border-b border-hairline text-[13px] @min-[700px]:col-span-1 @min-[700px]:max-h-none @min-[700px]:border-r @min-[700px]:border-b-0">
      <div
        role="group"
        aria-label="Group findings by"
        className="flex flex-wrap border-b border-hairline px-1 py-1 text-[12.5px]"
      >
        {groupings.map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={each === by}
            onClick={() => onGroupBy(each)}
            className={`min-h-[24px] rounded px-[5px] first-letter:uppercase ${each === by ? 'bg-eucalypt-soft font-bold' : 'text-quiet hover:text-ink'}`}
          >
            {names[each]}
          </button>
        ))}
      </div>
      <div className="min-h-0 flex-1 overflow-auto py-1">
        {by === 'rule' ? (
          <RuleList rules={rules} findings={findings} chosen={chosen} onChoose={onChoose} />
        ) : (
          groups.map(({ name, open, all }) => (
            <button
              key={name}
              type="button"
              aria-pressed={chosen === name}
              title={name}
              onClick={() => onChoose(chosen === name ? null : name)}
              className={`flex min-h-[28px] w-full items-center gap-2 border-l-[3px] px-3 py-1 text-left leading-tight ${chosen === name ? 'border-l-eucalypt bg-eucalypt-soft font-bold' : 'border-l-transparent hover:bg-raised'} ${open === 0 ? 'text-quiet' : ''}`}
            >
              <span className="min-w-0 flex-1 truncate">{name}</span>
              <span className="figures">{showCount(all)}</span>
            </button>
          ))
        )}
        {by === 'assignee' && groups.length === 0 && (
          <p className="px-3 py-2 text-quiet">No finding is anybody’s yet. Press o to say whose one is.</p>
        )}
      </div>
    </div>
  );
}

const names: Readonly<Record<Grouping, string>> = {
  rule: 'Rule',
  course: 'Course',
  teacher: 'Teacher',
  student: 'Student',
  assignee: 'Whose',
};

/** Those with the most findings that are not settled first. */
function groupsOf(findings: readonly FindingReply[], by: Grouping) {
  const groups = new Map<string, { name: string; open: number; all: number }>();
  for (const finding of findings) {
    const name = groupOf(finding, by);
    if (name === null) continue;
    const own = groups.get(name) ?? { name, open: 0, all: 0 };
    own.all++;
    if (!isSettled(finding)) own.open++;
    groups.set(name, own);
  }
  return [...groups.values()].toSorted((a, b) => b.open - a.open || a.name.localeCompare(b.name));
}
