import { Link2 } from 'lucide-react';
import type { ScaleReply } from '#contract/scales';
import { counted } from '#contract/messages';
import { Panel } from '../ui/panel';
import { scaleDrafts } from './scale-drafts';
import { kindWords } from './words';

/** The scales of the school, what each is used for, and which are tied or being changed. */
export function ScaleList({
  scales,
  chosenId,
  onChoose,
}: {
  scales: readonly ScaleReply[];
  chosenId: number;
  onChoose: (id: number) => void;
}) {
  const drafts = scaleDrafts.useAll();
  return (
    <Panel label="Scales" className="flex shrink-0 overflow-x-auto">
      {scales.map(({ id, name, kind, tie, items, coursesUsingIt, version, isDistrictWide }) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === chosenId}
          onClick={() => onChoose(id)}
          className={`min-w-[190px] border-r border-hairline px-4 py-2 text-left aria-pressed:bg-eucalypt-soft hover:bg-raised ${drafts[id] ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
        >
          <span className="flex items-center gap-1.5 font-bold">
            {name}
            {tie && <Link2 size={13} aria-label={`tied to ${tie.toName}`} />}
          </span>
          <span className="block text-[12px] text-quiet">
            {kindWords[kind]}
            {isDistrictWide && ' of the district'}
            {coursesUsingIt > 0
              ? `; ${items.join(', ')} of ${counted(coursesUsingIt, 'course')}`
              : `; from ${version.fromPeriod}, not used in this period`}
          </span>
        </button>
      ))}
    </Panel>
  );
}
