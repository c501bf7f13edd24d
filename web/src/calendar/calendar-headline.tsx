import type { PeriodBody } from '#contract/calendar';
import { counted } from '#contract/messages';
import { showDay } from '../ui/format';
import { Strong } from '../ui/page';
import type { PeriodView } from './calendar-view';

interface CalendarHeadlineProps {
  readonly schoolName: string;
  readonly year: PeriodBody;
  readonly views: readonly PeriodView[];
  readonly chosen: PeriodView | undefined;
  readonly today: string;
}

/** How long the year is, and when 60 % of the chosen period is over, as aid rules turn on it. */
export function CalendarHeadline({ schoolName, year, views, chosen, today }: CalendarHeadlineProps) {
  const own = views[0];
  const leaves = views.filter(({ period }) => !views.some((other) => other.period.parentId === period.id));
  const part = chosen && chosen.depth > 0 ? chosen : undefined;
  return (
    <>
      {schoolName} has <Strong>{counted(own?.classDays ?? 0, 'day')} with classes</Strong> in {year.name}, in{' '}
      <Strong>{counted(leaves.length, leaves[0]?.period.kind ?? 'period')}</Strong>
      {part && (
        <>
          ; 60 % of {part.period.name} {part.part.sixtyPercentDay < today ? 'was over on' : 'is over on'}{' '}
          <Strong tone="informs">{showDay(part.part.sixtyPercentDay)}</Strong>
        </>
      )}
      .
    </>
  );
}
