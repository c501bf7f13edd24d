import { agreeing, counted, listed } from '#contract/messages';
import { useCalendars } from '../calendar/queries';
import { PageFace } from '../shell/awaited-page';
import { Page, Strong } from '../ui/page';
import { OpenSchoolForm } from './open-school-form';

/** Another school of the district. */
export function NewSchoolPage() {
  const calendars = useCalendars();
  const { data: known } = calendars;
  if (!known) return <PageFace queries={[calendars]} />;
  return (
    <Page
      headline={
        <>
          There {agreeing(known.length, 'is')} <Strong>{counted(known.length, 'school')}</Strong>; a new one begins with
          its name and its first year.
        </>
      }
      below={`It stands beside ${listed(known.map(({ school }) => school.name))}.`}
    >
      <OpenSchoolForm isFirst={false} />
    </Page>
  );
}
