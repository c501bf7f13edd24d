import { mayAt, type Action, type Grant, type Holder } from '#core/access';

/** Whether somebody has a say in all of these roles, wherever they are held. */
export function mayManageAll(holder: Holder, grants: readonly Grant[], action: Action = 'manage-access'): boolean {
  return grants.every(({ schoolId }) => mayAt(holder, action, { schoolId, teacherIds: [] }));
}
