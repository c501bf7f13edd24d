import { Link, useSearchParams } from 'react-router';
import type { SetUpFaultReply, SetUpPlace } from '#contract/set-up';
import { usePeriod, useScope } from '../shell/scope';
import { plural, showCount } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { SeverityDiamond } from '../ui/state-marks';
import { useSetUpCheck } from './queries';

const placeNames: Record<SetUpPlace, string> = {
  scales: 'Scales',
  calendar: 'Calendar',
  'report-items': 'Report items',
  courses: 'Courses',
};
const places = Object.keys(placeNames) as SetUpPlace[];

/** Every fault of the set-up in one list, each with the way to where it is mended. */
export function SetUpPage() {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const { data } = useSetUpCheck(periodId);
  const [search, setSearch] = useSearchParams();
  if (!data || !period) return null;
  const { faults, checked } = data;
  const chosen = places.find((place) => place === search.get('place'));
  const shown = chosen ? faults.filter(({ place }) => place === chosen) : faults;
  return (
    <Page
      headline={
        faults.length === 0 ? (
          <>
            The set-up has <Strong>no fault</Strong>: {plural(checked.scales, 'scale')},{' '}
            {plural(checked.periods, 'period')}, {plural(checked.items, 'item')} and {plural(checked.courses, 'course')}{' '}
            hold together.
          </>
        ) : (
          <>
            <FigureButton tone="warns" onClick={() => setSearch({})}>
              {plural(faults.length, 'fault')}
            </FigureButton>{' '}
            of the set-up {faults.length === 1 ? 'wants' : 'want'} settling:{' '}
            {places
              .map((place) => [place, faults.filter((fault) => fault.place === place).length] as const)
              .filter(([, count]) => count > 0)
              .map(([place, count], index, all) => (
                <span key={place}>
                  {index > 0 && (index === all.length - 1 ? ' and ' : ', ')}
                  <FigureButton onClick={() => setSearch({ place })}>{showCount(count)}</FigureButton> in{' '}
                  {placeNames[place]}
                </span>
              ))}
            .
          </>
        )
      }
      aside={`as things stand in ${period.name}`}
    >
      <Panel label="Faults" className="overflow-auto">
        {shown.length === 0 ? (
          <Empty title="Nothing to settle">
            Scales are checked for gaps and equal cut-offs, the calendar for gaps, overlaps and windows, items and
            courses for what lacks a scale, credits, a transcript item or a part.
          </Empty>
        ) : (
          <ul>
            {shown.map((fault) => (
              <FaultRow key={fault.key} fault={fault} />
            ))}
          </ul>
        )}
      </Panel>
    </Page>
  );
}

function FaultRow({ fault }: { fault: SetUpFaultReply }) {
  const { path } = useScope();
  return (
    <li className="flex items-center gap-3 border-t border-hairline px-4 py-2 first:border-t-0">
      <SeverityDiamond severity={fault.severity} />
      <span className="w-[110px] shrink-0 text-[13px] text-quiet">{placeNames[fault.place]}</span>
      <span className="min-w-0 flex-1">{fault.says}</span>
      <Link
        to={path(`${fault.place}${fault.search}`)}
        className="shrink-0 rounded-md border border-hairline px-3 py-1 font-semibold hover:border-control"
      >
        Settle it
      </Link>
    </li>
  );
}
