import type { PolicyEffectReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { showCount } from '../../ui/format';
import { Strong } from '../../ui/page';
import { ChangedWords } from '../value-effect';

/** The effect of a policy in one sentence. */
export function EffectSentence({ effect, periodName }: { effect: PolicyEffectReply; periodName: string }) {
  const { sections, grades, changed } = effect;
  if (sections === 0) return <>No grade book of {periodName} with scores would be calculated by it.</>;
  const where = `${counted(grades, 'grade')} of ${periodName} in ${counted(sections, 'section')}`;
  if (changed === 0) return <>It would change none of {where}.</>;
  return (
    <>
      It would change <Strong tone="warns">{showCount(changed)}</Strong> of {where}: <ChangedWords effect={effect} />.
      Posted grades stay as they are.
    </>
  );
}
