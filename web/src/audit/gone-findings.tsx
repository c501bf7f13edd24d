import type { GoneFindingReply } from '#contract/audit';
import { Awaited } from '../shell/awaited';
import { showInstant } from '../ui/format';
import { Empty } from '../ui/panel';
import { FoundAbout } from './found-about';
import { useGoneFindings } from './queries';

/** What the run before found and the last one did not, and who saw to it. */
export function GoneFindings({ periodId }: { periodId: number }) {
  const read = useGoneFindings(periodId);
  return (
    <Awaited query={read} waiting="Comparing the runs">
      {(gone) =>
        gone.length === 0 ? (
          <Empty title="Nothing is gone">The last audit found all that the one before it found.</Empty>
        ) : (
          <ul>
            {gone.map((each) => (
              <GoneFinding key={each.key} gone={each} />
            ))}
          </ul>
        )
      }
    </Awaited>
  );
}

function GoneFinding({ gone }: { gone: GoneFindingReply }) {
  return (
    <li className="border-b border-hairline py-2 text-[13px]" title={gone.summary}>
      <FoundAbout {...gone} />
      <p>{whyInWords(gone)}</p>
    </li>
  );
}

function whyInWords({ why, by, at }: GoneFindingReply): string {
  if (why === 'rule-off') return 'The rule is switched off.';
  return why === 'saved'
    ? `${by} saved the grade on ${showInstant(at!)}.`
    : 'It was set right elsewhere than in the grade.';
}
