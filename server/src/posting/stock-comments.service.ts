import { Injectable } from '@nestjs/common';
import { unknownCommentWords } from '#core/posting';
import type { SaveStockCommentsRequest, StockCommentsReply } from '#contract/posting';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';

/** The comments that teachers of a school choose from. */
@Injectable()
export class StockCommentsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly changes: Changes,
  ) {}

  ofSchool(schoolId: number): Promise<StockCommentsReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId));
  }

  /** @throws Refusal fields-wrong, changed-meanwhile */
  async save(
    actor: Actor,
    schoolId: number,
    { comments, revision }: SaveStockCommentsRequest,
  ): Promise<StockCommentsReply> {
    const texts = comments.map((text) => text.trim());
    const faults = texts.flatMap((text, at) => {
      const unknown = unknownCommentWords(text);
      const fault = (detail: string) => [{ field: `comments.${at}`, detail }];
      if (text === '') return fault('a comment, or remove the row');
      if (texts.indexOf(text) < at) return fault('each comment once');
      return unknown.length > 0 ? fault(`words in braces that are known; {${unknown[0]}} is not`) : [];
    });
    if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
    return this.transactions.run(async (queries) => {
      const after = texts.length > 0 ? texts : null;
      const edits = [{ kind: 'stock-comments', id: String(schoolId), expected: revision, after }];
      await this.changes.make(queries, actor, { action: 'save the stock comments', edits });
      return this.read(queries, schoolId);
    });
  }

  private async read(queries: Queries, schoolId: number): Promise<StockCommentsReply> {
    const comments = await this.changes.valueOf<readonly string[]>(queries, 'stock-comments', String(schoolId));
    return { comments: comments ?? [], revision: revisionOf(comments) };
  }
}
