import type { ItemEffectReply } from '#contract/report-items';
import { ChangedWords, ValueEffect } from '../calculation/value-effect';
import { ProblemError } from '../shell/api';
import { plural, showCount } from '../ui/format';
import { Strong } from '../ui/page';

/** What a changed item would do to what is computed for it, before it is saved. */
export function ItemEffect({ effect, error }: { effect: ItemEffectReply | undefined; error: unknown }) {
  if (error)
    return (
      <p role="alert" className="py-6 text-waratah">
        {error instanceof ProblemError ? error.problem.detail : 'The server does not answer. Go back and try again.'}
      </p>
    );
  if (!effect) return <p className="py-10 text-center text-quiet">Working out what the grades would come to …</p>;
  return (
    <div className="space-y-5">
      <p className="text-[15px]">
        <ItemEffectSentence effect={effect} />
      </p>
      <ValueEffect effect={effect} />
    </div>
  );
}

function ItemEffectSentence({ effect }: { effect: ItemEffectReply }) {
  const { grades, sections, changed, periodName, postedOtherwise } = effect;
  if (grades === 0) return <>Nothing is computed for it in {periodName}, so no value changes.</>;
  const where = `${plural(grades, 'computed grade')} of ${periodName} in ${plural(sections, 'section')}`;
  if (changed === 0) return <>It would change none of the {where}.</>;
  return (
    <>
      It would change <Strong tone="warns">{showCount(changed)}</Strong> of {where}: <ChangedWords effect={effect} />.
      Posted grades stay as they are
      {postedOtherwise > 0 && (
        <>
          ; <Strong tone="warns">{showCount(postedOtherwise)}</Strong> of them would then differ from what is computed
        </>
      )}
      .
    </>
  );
}
