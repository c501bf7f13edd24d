import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { PeriodReply } from '#contract/calendar';
import type { ScalesReply } from '#contract/scales';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { ViewSwitch } from '../ui/field';
import { Page } from '../ui/page';
import { Empty } from '../ui/panel';
import { GpaDesk } from '../transcripts/gpa-desk';
import { CodesDesk } from '../codes/codes-desk';
import { NewScaleDialog } from './new-scale-dialog';
import { PlacementsDesk } from './placements-desk';
import { useScales } from './queries';
import { ScaleDesk } from './scale-desk';

const views = [
  ['scales', 'Scales'],
  ['in-force', 'Where used'],
  ['codes', 'Codes'],
  ['gpa', 'GPA'],
] as const;
type View = (typeof views)[number][0];

/** The school's scales, where each is used, the district's codes, and how its grade point averages are made. */
export function ScalesPage() {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const scales = useScales(periodId);
  const { data: reply } = scales;
  const [search, setSearch] = useSearchParams();
  if (!reply || !period) return <PageFace queries={[scales]} />;
  const view = views.map(([name]) => name).find((name) => name === search.get('view')) ?? 'scales';
  const onView = (chosen: View) => setSearch(chosen === 'scales' ? {} : { view: chosen });
  const viewSwitch = <ViewSwitch label="View" views={views} chosen={view} onChoose={onView} />;
  if (view === 'codes') return <CodesDesk viewSwitch={viewSwitch} />;
  if (view === 'gpa') return <GpaDesk viewSwitch={viewSwitch} />;
  if (view === 'in-force') return <PlacementsDesk reply={reply} viewSwitch={viewSwitch} />;
  return <OneScale reply={reply} period={period} viewSwitch={viewSwitch} />;
}

function OneScale({
  reply,
  period,
  viewSwitch,
}: {
  reply: ScalesReply;
  period: PeriodReply;
  viewSwitch: React.ReactNode;
}) {
  const [search, setSearch] = useSearchParams();
  const [isAdding, setAdding] = useState(false);
  const scale =
    reply.scales.find(({ id }) => id === Number(search.get('scale'))) ??
    reply.scales.find(({ coursesUsingIt }) => coursesUsingIt > 0) ??
    reply.scales[0];
  const choose = (id: number) => setSearch({ scale: String(id) });
  const dialog = isAdding && (
    <NewScaleDialog
      reply={reply}
      period={period}
      onClose={() => setAdding(false)}
      onAdded={(id) => {
        setAdding(false);
        choose(id);
      }}
    />
  );
  if (!scale) {
    return (
      <Page headline={`No scale is in force in ${period.name}.`} aside={viewSwitch}>
        <Empty title="No scale here">
          <p>A scale turns a percentage into a label, or lists the labels that are picked by hand.</p>
          <Button look="main" className="mt-4" onClick={() => setAdding(true)}>
            New scale
          </Button>
        </Empty>
        {dialog}
      </Page>
    );
  }
  return (
    <>
      <ScaleDesk
        key={scale.id}
        reply={reply}
        scale={scale}
        period={period}
        viewSwitch={viewSwitch}
        onChoose={choose}
        onAdd={() => setAdding(true)}
      />
      {dialog}
    </>
  );
}
