import { useSearchParams } from 'react-router';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { ViewSwitch } from '../ui/field';
import { CompareDesk } from './compare/compare-desk';
import { DifferingDesk } from './compare/differing-desk';
import { PolicyDesk } from './policy/policy-desk';
import { useCalculation } from './queries';

const views = [
  ['policies', 'Policies'],
  ['compare', 'Sections side by side'],
  ['differing', 'Differs from computed'],
] as const;
type View = (typeof views)[number][0];

/** How grade books are calculated: the policies, the sections of a course compared, and what differs from what is posted. */
export function CalculationPage() {
  const { periodId } = useScope();
  const { period, termLine } = usePeriod();
  const calculation = useCalculation(periodId);
  const { data: reply } = calculation;
  const [search, setSearch] = useSearchParams();
  if (!reply || !period || !termLine) return <PageFace queries={[calculation]} />;
  const view = views.map(([name]) => name).find((name) => name === search.get('view')) ?? 'policies';
  const onView = (chosen: View) => setSearch(chosen === 'policies' ? {} : { view: chosen });
  const viewSwitch = <ViewSwitch label="View" views={views} chosen={view} onChoose={onView} />;
  if (view === 'compare') return <CompareDesk reply={reply} period={period} viewSwitch={viewSwitch} />;
  if (view === 'differing') return <DifferingDesk periodName={period.name} viewSwitch={viewSwitch} />;
  return <PolicyDesk reply={reply} period={period} periods={termLine.periods} viewSwitch={viewSwitch} />;
}
