import { Link, useSearchParams } from 'react-router';
import type { SetUpFaultReply, SetUpPlace, SetUpReply } from '#contract/set-up';
import { agreeing, counted, type CountedThing } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { showCount } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Panel } from '../ui/panel';
import { FillDisc, SeverityDiamond } from '../ui/state-marks';
import { useSetUpCheck } from './queries';

const placeNames: Record<SetUpPlace, string> = {
  scales: 'Scales',
  calendar: 'Calendar',
  'report-items': 'Report items',
  courses: 'Courses',
  calculation: 'Calculation',
};
const checkedWords: Record<SetUpPlace, CountedThing> = {
  scales: 'scale',
  calendar: 'period',
  'report-items': 'item',
  courses: 'course',
  calculation: 'policy',
};
const checkedKeys = {
  scales: 'scales',
  calendar: 'periods',
  'report-items': 'items',
  courses: 'courses',
  calculation: 'policies',
} as const satisfies Record<SetUpPlace, keyof SetUpReply['checked']>;
/** What each place is checked for. */
const soughtWords: Record<SetUpPlace, string> = {
  scales: 'equal cut-offs, bands that no value reaches, points that do not fall, courses without a scale',
  calendar: 'gaps and overlaps, periods outside their parent, windows before the end of their period',
  'report-items': 'courses with no or two transcript items, composites whose parts a course lacks',
  courses: 'courses in the GPA without credits',
  calculation: 'weights that do not add to 100, categories without a weight, percentages without a label',
};
const places = Object.keys(placeNames) as SetUpPlace[];

/** Every fault of the set-up in one list, each with the way to where it is mended. */
export function SetUpPage() {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const check = useSetUpCheck(periodId);
  const { data } = check;
  const [search, setSearch] = useSearchParams();
  if (!data || !period) return <PageFace queries={[check]} />;
  const { faults, checked } = data;
  const chosen = places.find((place) => place === search.get('place'));
  return (
    <Page
      headline={
        faults.length === 0 ? (
          <>
            The set-up has <Strong>no fault</Strong>: {counted(checked.scales, 'scale')},{' '}
            {counted(checked.periods, 'period')}, {counted(checked.items, 'item')} and{' '}
            {counted(checked.courses, 'course')} hold together.
          </>
        ) : (
          <>
            <FigureButton tone="warns" onClick={() => setSearch({})}>
              {counted(faults.length, 'fault')}
            </FigureButton>{' '}
            of the set-up {agreeing(faults.length, 'needs')} a decision:{' '}
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
      {places
        .filter((place) => chosen === undefined || place === chosen)
        .map((place) => (
          <PlacePanel
            key={place}
            place={place}
            checked={checked[checkedKeys[place]]}
            faults={faults.filter((fault) => fault.place === place)}
          />
        ))}
    </Page>
  );
}

interface PlacePanelProps {
  readonly place: SetUpPlace;
  readonly checked: number;
  readonly faults: readonly SetUpFaultReply[];
}

/** One place of the set-up: what was looked at, and what is wrong with it. */
function PlacePanel({ place, checked, faults }: PlacePanelProps) {
  const { path } = useScope();
  return (
    <Panel label={placeNames[place]}>
      <div className="flex items-center gap-3 px-4 py-2.5">
        <FillDisc done={faults.length === 0 ? 1 : 0} of={1} />
        <h2 className="w-[110px] shrink-0 font-bold">{placeNames[place]}</h2>
        <p className="min-w-0 flex-1 text-[13px] text-quiet">
          {counted(checked, checkedWords[place])} looked at for {soughtWords[place]}:{' '}
          {faults.length === 0 ? 'nothing to resolve.' : `${counted(faults.length, 'fault')}.`}
        </p>
        <Link to={path(place)} className="shrink-0 font-semibold text-eucalypt hover:underline">
          Open {placeNames[place]}
        </Link>
      </div>
      {faults.length > 0 && (
        <ul>
          {faults.map((fault) => (
            <FaultRow key={fault.key} fault={fault} />
          ))}
        </ul>
      )}
    </Panel>
  );
}

function FaultRow({ fault }: { fault: SetUpFaultReply }) {
  const { path } = useScope();
  return (
    <li className="flex items-center gap-3 border-t border-hairline py-1.5 pr-4 pl-[42px]">
      <SeverityDiamond severity={fault.severity} />
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
