import { X } from 'lucide-react';
import { Link, useLocation } from 'react-router';
import { roleNames } from '#core/access';
import { isBeingSetUp } from '#core/set-up';
import type { PersonReply } from '#contract/people';
import { useFirstSteps } from '../set-up/queries';
import { mayIn } from '../shell/access';
import { useScope } from '../shell/scope';
import { changeOwnView, useOwnView } from '../ui/own-view';
import { roleStepsOf } from './role-steps';

/** What somebody new in a role does first, above every page until they hide it; it stays in the help of each screen. */
export function RoleStepsStrip({ person }: { person: PersonReply }) {
  const { schoolId, periodId, path } = useScope();
  // A school that is being set up has first steps of its own.
  const { data: counts } = useFirstSteps(schoolId, periodId, mayIn(person, schoolId, 'change-set-up'));
  const { pathname } = useLocation();
  const isHidden = useOwnView((view) => view.hidesFirstSteps);
  const own = roleStepsOf(person, schoolId);
  if (isHidden || !own || (counts && isBeingSetUp(counts))) return null;
  return (
    <aside
      aria-label={`First steps of a ${roleNames[own.role]}`}
      className="flex shrink-0 items-center gap-x-4 overflow-x-auto border-b border-hairline bg-surface px-6 py-1.5 text-[13px]"
    >
      <ol className="flex items-center gap-4">
        {own.steps.map(({ does, how, path: to }, at) => (
          <li key={does} className="whitespace-nowrap">
            <span className="figures mr-1 text-quiet">{at + 1}</span>
            {to === undefined ? (
              <span title={how}>{does}</span>
            ) : (
              <Link
                to={path(to)}
                title={how}
                aria-label={`Step ${at + 1}: ${does}`}
                aria-current={pathname === path(to) ? 'step' : undefined}
                className="text-estuary underline-offset-2 hover:underline aria-[current]:font-bold aria-[current]:text-ink"
              >
                {does}
              </Link>
            )}
          </li>
        ))}
      </ol>
      <button
        type="button"
        onClick={() => changeOwnView({ hidesFirstSteps: true })}
        title="They stay in the help of each screen: press ?"
        className="sticky right-0 ml-auto flex items-center gap-1 rounded bg-surface px-2 py-0.5 whitespace-nowrap text-quiet hover:bg-eucalypt-soft hover:text-ink"
      >
        <X size={13} aria-hidden /> Hide first steps
      </button>
    </aside>
  );
}
