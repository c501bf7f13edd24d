import type { ScaleReply } from '#contract/scales';
import { usePeriod, useScope } from '../shell/scope';
import { Page } from '../ui/page';
import { Empty } from '../ui/panel';
import { useScales } from './queries';
import { ScaleDesk } from './scale-desk';

/** The scale of the item that the chosen period reports. */
export function ScalesPage() {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const { data: scales } = useScales(periodId);
  if (!scales || !period) return null;
  const scale: ScaleReply | undefined = scales[0];
  if (!scale) {
    return (
      <Page headline={`Nothing is reported in ${period.name}, so no scale is in force.`}>
        <Empty title="No scale here">A scale comes into force where a report item uses it.</Empty>
      </Page>
    );
  }
  return <ScaleDesk key={scale.id} scale={scale} period={period} />;
}
