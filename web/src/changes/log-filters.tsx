import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { LogReply } from '#contract/changes';
import { parseDay } from '#core/calendar';
import { usePeriod } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { OptionalDayField } from '../ui/day/day-field';
import { dayOfInstant } from '../ui/day/zone-time';
import { Select } from '../ui/choice/select';

interface LogFiltersProps extends Pick<LogReply, 'people' | 'kinds'> {
  readonly onChange: () => void;
}

const look = 'h-8 rounded-md border border-control bg-surface px-2';

/** What narrows the log, each in the address: words, who, what kind of thing, and between which days. */
export function LogFilters({ people, kinds, onChange }: LogFiltersProps) {
  const [search, setSearch] = useSearchParams();
  const [text, onText] = useTextInAddress('text');
  const { termLine } = usePeriod();
  const [opened] = useState(() => new Date().toISOString());
  const today = dayOfInstant(termLine?.now ?? opened);
  const set = (changes: Record<string, string>) => {
    onChange();
    setSearch((before) => searchWith(before, { ...changes, entry: null }), { replace: true });
  };
  const thing = search.get('thing') ?? '';
  const isOneThing = thing.includes(' ');
  return (
    <>
      <input
        type="search"
        aria-label="What was done"
        placeholder="What was done"
        value={text}
        onChange={(event) => onText(event.target.value)}
        className={`${look} w-[140px]`}
      />
      <Select
        aria-label="Who"
        value={search.get('who') ?? ''}
        onChange={(event) => set({ who: event.target.value })}
        className={`${look} max-w-[150px]`}
      >
        <option value="">Everybody</option>
        {people.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Select>
      <Select
        aria-label="Kind of thing"
        value={thing}
        onChange={(event) => set({ thing: event.target.value })}
        className={`${look} max-w-[150px]`}
      >
        <option value="">Everything</option>
        {isOneThing && <option value={thing}>One thing</option>}
        {kinds.map(({ kind, called }) => (
          <option key={kind} value={kind}>
            {called.replace(/^the /, '')}
          </option>
        ))}
      </Select>
      {(['from', 'to'] as const).map((end) => (
        <span key={end} className="flex items-center gap-1.5 text-[13px] text-quiet">
          {end === 'from' ? 'From' : 'to'}
          <span className={`${look} w-[150px] px-0!`}>
            <OptionalDayField
              label={end === 'from' ? 'From' : 'To'}
              day={parseDay(search.get(end) ?? '') ?? null}
              near={today}
              onChange={(day) => set({ [end]: day ?? '' })}
            />
          </span>
        </span>
      ))}
    </>
  );
}
