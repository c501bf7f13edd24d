import { isOpen } from '#core/matching';
import type { MatchesReply } from '#contract/matching';
import { agreeing, counted, type CountedThing } from '#contract/messages';
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
  const open: [View, number, CountedThing][] = [
    ['class', classes.filter(({ state }) => isOpen(state)).length, 'class'],
    ['group', openOf('group'), 'group name'],
    ['total', openOf('total'), 'total column'],
    ['letter', openOf('letter'), 'platform label'],
    ['person', people.filter(({ state }) => isOpen(state)).length, 'student'],
  ];
  const waiting = open.filter(([, count]) => count > 0);
  return (
    <>
      <Strong>{joined}</Strong> of {counted(classes.length, 'class')} on {platform.name} {agreeing(joined, 'is')} joined
      to our sections.{' '}
      {waiting.length === 0 ? (
        'Nothing waits for a decision.'
      ) : (
        <>
          Still to decide:{' '}
          {waiting.map(([view, count, thing], at) => (
            <span key={view}>
              {at > 0 && (at === waiting.length - 1 ? ' and ' : ', ')}
              <FigureButton tone="warns" onClick={() => onView(view)}>
                {counted(count, thing)}
              </FigureButton>
            </span>
          ))}
          .
        </>
      )}
    </>
  );
}
