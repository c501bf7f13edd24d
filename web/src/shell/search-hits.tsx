import { Command } from 'cmdk';
import type { SearchHitReply } from '#contract/search';
import { showName } from '../ui/format';
import { useSchools, useScope } from './scope';

export const groupLook =
  '[&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-quiet';
export const itemLook = 'flex items-baseline gap-3 px-4 py-1.5 data-[selected=true]:bg-eucalypt-soft';

/** What was found of one kind, each with its school where that is another one. */
export function Hits<Hit extends SearchHitReply>({
  heading,
  hits,
  isOlder,
  onGo,
}: {
  heading: string;
  hits: readonly Hit[];
  /** They answer a text that was typed before. */
  isOlder: boolean;
  onGo: (hit: Hit) => void;
}) {
  const { schoolId } = useScope();
  const { data: schools } = useSchools();
  const elsewhere = (hit: Hit) =>
    hit.schoolId === schoolId || hit.schoolId === null
      ? ''
      : `, ${schools?.find(({ id }) => id === hit.schoolId)?.shortName ?? 'another school'}`;
  if (hits.length === 0) return null;
  return (
    <Command.Group heading={heading} className={groupLook}>
      {hits.map((hit) => (
        <Command.Item
          key={hit.id}
          value={`${heading} ${hit.id}`}
          disabled={isOlder}
          onSelect={() => onGo(hit)}
          className={itemLook}
        >
          <span>{hit.kind === 'student' || hit.kind === 'staff' ? showName(hit.title) : hit.title}</span>
          <span className="ml-auto text-[13px] text-quiet">
            {hit.detail}
            {elsewhere(hit)}
          </span>
        </Command.Item>
      ))}
    </Command.Group>
  );
}
