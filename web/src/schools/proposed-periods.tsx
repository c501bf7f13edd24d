import { proposeYear } from '#core/calendar';
import type { OpenSchoolRequest } from '#contract/schools';
import { showDay } from '../ui/format';

/** The periods that a first year would have; they can be moved under Calendar. */
export function ProposedPeriods({ year }: { year: OpenSchoolRequest['year'] }) {
  const [, ...parts] = proposeYear(year.division, year.name, year.startsOn, year.endsOn);
  return (
    <table className="w-full text-[13px]">
      <caption className="pb-1.5 text-left text-quiet">
        Its periods would be these. Move their edges, add breaks and posting windows under Calendar.
      </caption>
      <tbody>
        {parts.map(({ id, kind, name, startsOn, endsOn }) => (
          <tr key={id} className="h-7 border-t border-hairline">
            <th scope="row" className={`text-left font-normal ${kind === 'quarter' ? 'pl-5' : 'font-semibold'}`}>
              {name}
            </th>
            <td className="text-right text-quiet">
              {showDay(startsOn)} – {showDay(endsOn)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
