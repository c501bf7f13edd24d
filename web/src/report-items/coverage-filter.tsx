import { useSearchParams } from 'react-router';
import type { ReportItemsReply } from '#contract/report-items';
import { searchWith } from '../ui/address/search-with';
import { Select } from '../ui/choice/select';

/** Which courses the table shows; kept in the address. */
export function CoverageFilter({ reply }: { reply: ReportItemsReply }) {
  const [search, setSearch] = useSearchParams();
  const alone = reply.courses.find(({ id }) => id === Number(search.get('course')));
  const kind = alone ? 'course' : search.get('without') ? 'without' : 'show';
  return (
    <div className="border-b border-hairline px-2.5 py-1">
      <Select
        aria-label="Courses shown"
        value={`${kind}=${search.get(kind) ?? ''}`}
        onChange={(event) => {
          const [key, value] = event.target.value.split('=');
          setSearch((before) => searchWith(before, { show: null, without: null, course: null, [key!]: value }));
        }}
        className="h-7 rounded border border-control bg-surface px-1.5 text-[13px]"
      >
        {alone && <option value={`course=${alone.id}`}>{alone.title} alone</option>}
        <option value="show=">all courses</option>
        <option value="show=lacking">those with nothing for the transcript</option>
        <option value="show=exceptions">those with an exception</option>
        {reply.items.map(({ id, name }) => (
          <option key={id} value={`without=${id}`}>
            those without {name}
          </option>
        ))}
      </Select>
    </div>
  );
}
