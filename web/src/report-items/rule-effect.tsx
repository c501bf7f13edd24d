import type { RulePreviewReply } from '#contract/report-items';
import { plural, showCount } from '../ui/format';
import { Note } from '../ui/panel';

const mostNamed = 4;

/** What a change of the rule would do, before it is made. */
export function RuleEffect({ preview, itemName }: { preview: RulePreviewReply; itemName: string }) {
  const { added, removed } = preview;
  const orphaned = removed.reduce((sum, { postedGrades }) => sum + postedGrades, 0);
  if (added.length + removed.length === 0) {
    return (
      <Note tone="so" title="Nothing would change">
        <p>The same courses report {itemName} as now.</p>
      </Note>
    );
  }
  return (
    <Note tone={orphaned > 0 ? 'blocks' : 'warns'} title="What the change would do">
      {added.length > 0 && (
        <p>
          <b>{plural(added.length, 'course')}</b> would come to report it: {names(added)}.
        </p>
      )}
      {removed.length > 0 && (
        <p>
          <b>{plural(removed.length, 'course')}</b> would no longer report it: {names(removed)}.
        </p>
      )}
      {orphaned > 0 && (
        <p className="text-waratah">
          <b>{showCount(orphaned)} posted grades</b> would lose their place on sheets and reports. They are kept, and
          return if the rule is changed back.
        </p>
      )}
    </Note>
  );
}

function names(courses: readonly { readonly title: string }[]): string {
  const named = courses.slice(0, mostNamed).map(({ title }) => title);
  return courses.length > mostNamed ? `${named.join(', ')} and ${courses.length - mostNamed} more` : named.join(', ');
}
