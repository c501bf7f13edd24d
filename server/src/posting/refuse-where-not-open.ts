import { mayAt, ofSection } from '#core/access';
import { canPost } from '#core/posting';
import { Refusal, type Actor } from '#server/platform';
import type { SheetContext } from './sheet-context.service.js';

/** @throws Refusal window-closed where a sheet takes nothing from somebody any more, or not yet */
export function refuseWhereNotOpen(
  actor: Actor,
  { section, item, period, window }: SheetContext,
  saysOutside: boolean,
): void {
  const mayOutside = mayAt(actor, 'post-outside-window', ofSection(period.schoolId, section));
  if (canPost(window, mayOutside, saysOutside)) return;
  throw new Refusal('window-closed', { item: item.name, period: period.name, state: window?.state ?? 'closed' });
}
