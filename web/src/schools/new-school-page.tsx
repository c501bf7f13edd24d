import { Page } from '../ui/page';
import { OpenSchoolForm } from './open-school-form';

/** Another school of the district. */
export function NewSchoolPage() {
  return (
    <Page headline="A new school begins with its name and its first year." below="The other schools stay as they are.">
      <OpenSchoolForm isFirst={false} />
    </Page>
  );
}
