import { Link } from 'react-router';
import type { AuditRuleReply, FoundReply } from '#contract/audit';
import { useScope } from '../shell/scope';
import { SeverityDiamond } from '../ui/state-marks';
import { placeOfFinding } from './finding-place';
import { FoundAbout } from './found-about';

/** What is found now in what was changed after the audit, and was not in it: each leads to where it is set right. */
export function AddedFindings({
  rules,
  found,
}: {
  readonly rules: readonly AuditRuleReply[];
  readonly found: readonly FoundReply[];
}) {
  const { path } = useScope();
  return (
    <>
      <p className="mb-2 text-[13px] text-quiet">Another audit takes these up, so that they can be settled.</p>
      <ul>
        {found.map((each) => {
          const rule = rules.find(({ id }) => id === each.ruleId)!;
          const place = placeOfFinding(rule, each);
          return (
            <li key={each.key} className="flex gap-2 border-b border-hairline py-2 text-[13px]">
              <span className="mt-px">
                <SeverityDiamond severity={rule.severity} />
              </span>
              <div>
                <FoundAbout {...each} />
                <Link className="font-semibold text-eucalypt hover:underline" to={path(place.path)}>
                  {place.says}
                </Link>
              </div>
            </li>
          );
        })}
      </ul>
    </>
  );
}
