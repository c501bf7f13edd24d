import type { Action } from '#core/access';
import type { PersonReply } from '#contract/people';
import { mayIn, mayInAll } from './access';

/** Something to be done, and the place where it begins. */
interface NamedAction {
  readonly name: string;
  readonly path: string;
  readonly needs: Action;
  /** It concerns all schools. */
  readonly isOfAll?: boolean;
}

const named: readonly NamedAction[] = [
  { name: 'New school', path: 'new-school', needs: 'change-shared-set-up', isOfAll: true },
  { name: 'New scale', path: 'scales', needs: 'change-set-up' },
  { name: 'New report item', path: 'report-items', needs: 'change-set-up' },
  { name: 'Add students and staff', path: 'people', needs: 'change-people' },
  { name: 'Add courses', path: 'courses', needs: 'change-set-up' },
  { name: 'Add sections', path: 'sections', needs: 'change-set-up' },
  { name: 'Enroll students', path: 'enrollments', needs: 'change-people' },
  { name: 'Connect a learning platform', path: 'platforms', needs: 'map' },
  { name: 'Plan a run', path: 'runs', needs: 'map' },
  { name: 'Import grades from a file', path: 'files', needs: 'map' },
  { name: 'Run an audit', path: 'findings', needs: 'audit' },
  { name: 'Seal the period', path: 'seal', needs: 'seal' },
  { name: 'Import or export a roster', path: 'exchange', needs: 'exchange', isOfAll: true },
  { name: 'Invite staff', path: 'accounts', needs: 'manage-access' },
  { name: 'Check the log', path: 'log', needs: 'read-log', isOfAll: true },
];

/** What somebody may do in a school, by name. */
export function actionsOf(person: PersonReply, schoolId: number): readonly NamedAction[] {
  return named.filter(({ needs, isOfAll }) => (isOfAll ? mayInAll(person, needs) : mayIn(person, schoolId, needs)));
}
