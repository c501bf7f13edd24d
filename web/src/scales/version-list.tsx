import type { ScaleReply } from '#contract/scales';
import { showWeekday } from '../ui/format';
import { Panel } from '../ui/panel';

/** Every version of the scale, newest first; the one in force in the chosen period is marked. */
export function VersionList({ scale }: { scale: ScaleReply }) {
  return (
    <Panel label="Versions" className="px-4 py-2.5 text-[13px]">
      <h2 className="mb-1 text-[14px] font-bold">Versions</h2>
      <ol>
        {scale.versions.map(({ number, fromPeriod, savedBy, savedAt }) => (
          <li key={number} className="flex items-baseline gap-2 py-0.5">
            <b className="figures w-5 text-right">{number}</b>
            <span className="flex-1">
              from {fromPeriod}
              {savedBy && (
                <span className="text-quiet">
                  , {savedBy}, {showWeekday(savedAt)}
                </span>
              )}
            </span>
            {number === scale.version.number && <span className="font-semibold text-eucalypt">in force</span>}
          </li>
        ))}
      </ol>
    </Panel>
  );
}
