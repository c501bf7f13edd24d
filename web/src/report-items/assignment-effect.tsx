import type { AssignmentPreviewReply, ReportItemsReply } from '#contract/report-items';
import { counted } from '#contract/messages';
import { showNames } from '../ui/format';
import { Note } from '../ui/panel';

/** What the drafted rules and exceptions would do, before they are saved. */
export function AssignmentEffect({ preview, reply }: { preview: AssignmentPreviewReply; reply: ReportItemsReply }) {
  const { changes } = preview;
  if (changes.length === 0) {
    return (
      <Note tone="so" title="Nothing would change">
        <p>Every course reports the same items as now.</p>
      </Note>
    );
  }
  const orphaned = changes.flatMap(({ removed }) => removed).reduce((sum, { postedGrades }) => sum + postedGrades, 0);
  return (
    <Note tone={orphaned > 0 ? 'blocks' : 'warns'} title="What the change would do">
      {changes.map(({ itemId, added, removed }) => {
        const name = reply.items.find(({ id }) => id === itemId)?.name;
        return (
          <div key={itemId} className="space-y-1">
            {added.length > 0 && (
              <p>
                <b>{counted(added.length, 'course')}</b> would report {name}:{' '}
                {showNames(added.map(({ title }) => title))}.
              </p>
            )}
            {removed.length > 0 && (
              <p>
                <b>{counted(removed.length, 'course')}</b> would no longer report {name}:{' '}
                {showNames(removed.map(({ title }) => title))}.
              </p>
            )}
          </div>
        );
      })}
      {orphaned > 0 && (
        <p className="text-waratah">
          <b>{counted(orphaned, 'posted grade')}</b> would no longer show on sheets and reports. Nothing is deleted, and
          undoing the change brings it back.
        </p>
      )}
    </Note>
  );
}
