import { canPost } from '#core/posting';
import type { SheetReply } from '#contract/posting';

/** What somebody may do with a sheet at this moment of its window. */
export interface PostingNow {
  /** The window is not open: a save says that it posts outside it, where it may. */
  readonly isOutside: boolean;
  readonly mayPost: boolean;
  /** Posting is over for them, and a registrar may still post what they typed. */
  readonly mayAsk: boolean;
}

/** @param mayOutside whether who looks may post outside of windows at all */
export function postingNow({ window }: Pick<SheetReply, 'window'>, mayOutside: boolean): PostingNow {
  const mayPost = canPost(window, mayOutside, true);
  const isOver = window === null || window.state === 'closed';
  return {
    isOutside: !canPost(window, mayOutside, false),
    mayPost,
    mayAsk: !mayPost && isOver && canPost(window, true, true),
  };
}
