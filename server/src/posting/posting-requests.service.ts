import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import type { HandStandardsRequest, PostingAnswerRequest, PostingRequestRequest } from '#contract/posting';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor } from '#server/platform';
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
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found, period-sealed */
  async ask(actor: Actor, { itemId, ...place }: SheetPlace, { changes, note }: PostingRequestRequest): Promise<void> {
    return this.askAll(actor, place, { sheets: [{ itemId, changes }], note });
  }

  /** Of several sheets of one section and period: all of it is asked for or nothing. @throws Refusal not-found, period-sealed */
  async askAll(actor: Actor, place: Omit<SheetPlace, 'itemId'>, { sheets, note }: HandStandardsRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const [askedAt, says] = [this.clock.now(), note.trim()];
      const asked = [];
      for (const { itemId, changes } of sheets) {
        const sheet = { ...place, itemId };
        const { item, period, section, sealedAt } = await this.contexts.ofSheetOrThrow(queries, sheet);
        if (sealedAt) throw new Refusal('period-sealed', { period: period.name });
        const id = await this.requests.add(queries, actor, sheet, { changes, note: says, askedAt });
        const action = `ask to post ${item.name} of ${section.name}`;
        asked.push({ action, thing: `posting-request ${id}`, before: null, after: { sheet, changes, note: says } });
      }
      await this.log.record(queries, actor, asked);
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
