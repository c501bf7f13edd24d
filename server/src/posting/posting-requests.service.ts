import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import type { PostingAnswerRequest, PostingRequestRequest } from '#contract/posting';
import { ChangeLog } from '#server/changes';
import { Refusal, Transactions, type Actor } from '#server/platform';
import { PostingRequestsRepository } from './posting-requests.repository.js';
import { SheetContextService } from './sheet-context.service.js';
import type { SheetPlace } from './sheet-place.js';

/**
 * Hands what somebody typed, and may not post any more, to a registrar. States of a request: open; then posted (a registrar put
 * it on the sheet and saved), declined by a registrar, or withdrawn by whoever asked.
 */
@Injectable()
export class PostingRequestsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly contexts: SheetContextService,
    private readonly requests: PostingRequestsRepository,
    private readonly log: ChangeLog,
  ) {}

  /** @throws Refusal not-found, period-sealed */
  async ask(actor: Actor, place: SheetPlace, { changes, note }: PostingRequestRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const { item, period, section, sealedAt } = await this.contexts.ofSheetOrThrow(queries, place);
      if (sealedAt) throw new Refusal('period-sealed', { period: period.name });
      const id = await this.requests.add(queries, actor, place, { changes, note: note.trim() });
      const action = `ask to post ${item.name} of ${section.name}`;
      const after = { sheet: { ...place }, changes, note: note.trim() };
      await this.log.record(queries, actor, [{ action, thing: `posting-request ${id}`, before: null, after }]);
    });
  }

  /** @throws Refusal not-found, request-answered, not-allowed where a registrar is to answer, or whoever asked is to withdraw */
  async answer(actor: Actor, id: number, answered: PostingAnswerRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const found = await this.requests.hold(queries, actor, id);
      if (!found) throw new Refusal('not-found', { what: 'request', id });
      const { item, period, section } = await this.contexts.ofSheetOrThrow(queries, found);
      const where = ofSection(period.schoolId, section);
      if (!mayAt(actor, 'post-grades', where)) throw new Refusal('not-found', { what: 'request', id });
      const mayAnswer =
        answered.state === 'withdrawn'
          ? found.askedById === actor.personId
          : mayAt(actor, 'post-outside-window', where);
      if (!mayAnswer) throw new Refusal('not-allowed');
      if (found.state !== 'open') throw new Refusal('request-answered', { by: found.answeredBy ?? 'Someone else' });
      await this.requests.answer(queries, actor, id, answered);
      const words = {
        posted: 'post what was asked for',
        declined: 'decline to post',
        withdrawn: 'withdraw a request for',
      };
      const action = `${words[answered.state]}: ${item.name} of ${section.name}`;
      const [before, after] = [{ state: 'open' }, { state: answered.state, answer: answered.answer.trim() }];
      await this.log.record(queries, actor, [{ action, thing: `posting-request ${id}`, before, after }]);
    });
  }
}
