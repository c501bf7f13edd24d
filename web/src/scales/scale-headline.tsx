import { formatAtLeast } from '#core/numbers';
import { justBelowOf } from '#core/scales';
import type { ScaleReply } from '#contract/scales';
import { agreeing, counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { showCount } from '../ui/format';
import { Figure, Strong } from '../ui/page';
import type { ScaleView } from './use-scale-view';

/** Where the scale is in force, who sits just below a cut-off, and what the draft would move. */
export function ScaleHeadline({ scale, view, periodName }: { scale: ScaleReply; view: ScaleView; periodName: string }) {
  const { path } = useScope();
  const { up, down } = view.effect;
  if (scale.coursesUsingIt === 0) {
    return (
      <>
        <Strong>{scale.name}</Strong> is not used by any item in {periodName}
        {view.isDraft ? '; the draft would move nothing.' : '.'}
      </>
    );
  }
  return (
    <>
      <Strong>{scale.name}</Strong> is in force in{' '}
      <Figure to={path('scales?view=in-force')}>{counted(scale.coursesUsingIt, 'course')}</Figure>
      {view.cut.length > 0 && (
        <>
          ; <Strong tone={view.justBelow > 0 ? 'warns' : 'so'}>{counted(view.justBelow, 'grade')}</Strong> of{' '}
          {periodName} {agreeing(view.justBelow, 'lies')} less than{' '}
          {scale.highestLevel === null ? 'half a point' : formatAtLeast(justBelowOf(view.top), 0)} below a cut-off
        </>
      )}
      {!view.isDraft && '.'}
      {view.isDraft && up + down === 0 && ', and the draft would move none.'}
      {view.isDraft && up + down > 0 && (
        <>
          , and the draft would move {up > 0 && <Strong tone="warns">{showCount(up)} up</Strong>}
          {up > 0 && down > 0 && ' and '}
          {down > 0 && <Strong tone="blocks">{showCount(down)} down</Strong>}.
        </>
      )}
    </>
  );
}
