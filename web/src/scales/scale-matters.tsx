import type { ScaleReply } from '#contract/scales';
import { counted, listed } from '#contract/messages';
import { Note } from '../ui/panel';
import type { ScaleView } from './use-scale-view';

/** What is to be known of a draft before it is saved. */
export function ScaleMatters({ view, scale }: { view: ScaleView; scale: ScaleReply }) {
  const follow =
    view.isDraft && scale.followers.length > 0
      ? [`${listed(scale.followers.map(({ name }) => name))}, tied to it, will follow with a version of its own.`]
      : [];
  const count = view.matters.length + follow.length;
  if (count === 0) return null;
  return (
    <Note
      tone={view.matters.some(({ isBlocking }) => isBlocking) ? 'blocks' : 'warns'}
      title={`${counted(count, 'matter')} to know`}
    >
      {[...view.matters.map(({ says }) => says), ...follow].map((says) => (
        <p key={says}>{says}</p>
      ))}
    </Note>
  );
}
