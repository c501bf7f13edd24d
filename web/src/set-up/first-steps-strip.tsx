import { Link, useLocation } from 'react-router';
import { useScope } from '../shell/scope';
import { FillDisc } from '../ui/state-marks';
import { firstStepLines } from './first-step-lines';
import { useFirstSteps } from './queries';

/** The first steps of a new school above each page of them, with the way to the next one; nothing once a grade is posted. */
export function FirstStepsStrip() {
  const { schoolId, periodId, path } = useScope();
  const { pathname } = useLocation();
  const { data } = useFirstSteps(schoolId, periodId);
  const lines = data ? firstStepLines(data) : [];
  const here = lines.find((line) => pathname === path(line.path));
  if (!here) return null;
  const next = lines.find(({ isDone }) => !isDone);
  return (
    <nav
      aria-label="First steps"
      className="flex shrink-0 items-center gap-x-5 gap-y-1 overflow-x-auto border-b border-hairline bg-surface px-6 py-2 text-[13px]"
    >
      <ol className="flex items-center gap-5">
        {lines.map((line) => (
          <li key={line.path}>
            <Link
              to={path(line.path)}
              aria-current={line === here ? 'step' : undefined}
              title={line.says}
              className={`flex items-center gap-1.5 whitespace-nowrap hover:underline ${line === here ? 'font-bold' : 'text-quiet'}`}
            >
              <FillDisc done={line.isDone ? 1 : 0} of={1} />
              {line.name}
            </Link>
          </li>
        ))}
      </ol>
      {next && next !== here && here.isDone && (
        <Link
          to={path(next.path)}
          className="ml-auto rounded-md border border-eucalypt px-2.5 py-0.5 font-semibold whitespace-nowrap text-eucalypt hover:bg-eucalypt-soft"
        >
          Next: {next.name}
        </Link>
      )}
    </nav>
  );
}
