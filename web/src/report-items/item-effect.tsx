import type { UseQueryResult } from '@tanstack/react-query';
import type { ItemEffectReply } from '#contract/report-items';
import { counted } from '#contract/messages';
import { ChangedWords, ValueEffect } from '../calculation/value-effect';
import { Awaited } from '../shell/awaited';
import { showCount } from '../ui/format';
import { Strong } from '../ui/page';

/** What a changed item would do to what is computed for it, before it is saved. */
export function ItemEffect({ effect }: { effect: UseQueryResult<ItemEffectReply> }) {
  return (
    <Awaited query={effect} waiting="Calculating what the grades would be">
      {(data) => (
        <div className="space-y-5">
          <p className="text-[15px]">
            <ItemEffectSentence effect={data} />
          </p>
          <ValueEffect effect={data} />
        </div>
      )}
    </Awaited>
  );
}

function ItemEffectSentence({ effect }: { effect: ItemEffectReply }) {
  const { grades, sections, changed, periodName, postedOtherwise } = effect;
  if (grades === 0) return <>Nothing is computed for it in {periodName}, so no value changes.</>;
  const where = `${counted(grades, 'computed grade')} of ${periodName} in ${counted(sections, 'section')}`;
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
