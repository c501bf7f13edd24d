import type { PostingRequestReply, SheetReply } from '#contract/posting';

/** What somebody asked for at once, on one standard or on several. */
export interface StandardsRequest extends Pick<PostingRequestReply, 'askedBy' | 'isOwn' | 'askedAt' | 'note'> {
  /** With the standard that each is about. */
  readonly asked: readonly (Pick<PostingRequestReply, 'id' | 'changes'> & { readonly itemId: number })[];
}

/** The open requests of some standards; those that were made together stand together. */
export function requestsOf(sheets: readonly Pick<SheetReply, 'itemId' | 'requests'>[]): StandardsRequest[] {
  const together = new Map<string, StandardsRequest>();
  for (const { itemId, requests } of sheets)
    for (const { id, changes, state, askedBy, isOwn, askedAt, note } of requests) {
      if (state !== 'open') continue;
      const key = JSON.stringify([askedBy, askedAt, note]);
      const asked = [...(together.get(key)?.asked ?? []), { id, changes, itemId }];
      together.set(key, { askedBy, isOwn, askedAt, note, asked });
    }
  return [...together.values()];
}
