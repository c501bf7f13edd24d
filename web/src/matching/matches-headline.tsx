import { isOpen } from '#core/matching';
import type { MatchesReply } from '#contract/matching';
import { plural } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import type { View } from './views';

/** What is joined and what is not, with the figures leading to the view where it is decided. */
export function MatchesHeadline({
  reply: { platform, classes, names, people },
  onView,
}: {
  reply: MatchesReply;
  onView: (view: View) => void;
}) {
  const joined = classes.filter(({ state }) => state === 'joined').length;
  const openOf = (kind: View) => names.filter((name) => name.kind === kind && isOpen(name.state)).length;
  const open: [View, number, string, string][] = [
    ['class', classes.filter(({ state }) => isOpen(state)).length, 'class', 'classes'],
    ['group', openOf('group'), 'group name', 'group names'],
    ['total', openOf('total'), 'total column', 'total columns'],
    ['letter', openOf('letter'), 'platform label', 'platform labels'],
    ['person', people.filter(({ state }) => isOpen(state)).length, 'student', 'students'],
  ];
  const waiting = open.filter(([, count]) => count > 0);
  return (
    <>
      <Strong>{joined}</Strong> of {plural(classes.length, 'class', 'classes')} on {platform.name}{' '}
      {joined === 1 ? 'is' : 'are'} joined to our sections.{' '}
      {waiting.length === 0 ? (
        'Nothing waits for a decision.'
      ) : (
        <>
          Still to decide:{' '}
          {waiting.map(([view, count, one, many], at) => (
            <span key={view}>
              {at > 0 && (at === waiting.length - 1 ? ' and ' : ', ')}
              <FigureButton tone="warns" onClick={() => onView(view)}>
                {plural(count, one, many)}
              </FigureButton>
            </span>
          ))}
          .
        </>
      )}
    </>
  );
}
