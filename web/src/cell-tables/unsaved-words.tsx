import { agreeing } from '#contract/messages';
import { showCount } from '../ui/format';
import { Strong } from '../ui/page';

/** The end of a headline: how many rows are changed and not saved, and how many of all cannot be. */
export function UnsavedWords({ changed, faulty }: { readonly changed: number; readonly faulty: number }) {
  return (
    <>
      {changed > 0 && (
        <>
          ; <Strong tone="warns">{showCount(changed)}</Strong> {agreeing(changed, 'is')} changed and not saved
        </>
      )}
      {faulty > 0 && (
        <>
          , <Strong tone="blocks">{showCount(faulty)}</Strong> cannot be saved yet
        </>
      )}
      .
    </>
  );
}
