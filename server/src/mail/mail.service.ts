import { Injectable } from '@nestjs/common';
import { schoolsWhere } from '#core/access';
import type { MailReply } from '#contract/mail';
import { ChangeLog } from '#server/changes';
import { Outbox, Transactions, type Actor, type Letter, type Queries } from '#server/platform';
import { MailsRepository } from './mails.repository.js';

/** Writes letters and shows what was written. */
@Injectable()
export class MailService {
  constructor(
    private readonly transactions: Transactions,
    private readonly mails: MailsRepository,
    private readonly outbox: Outbox,
    private readonly log: ChangeLog,
  ) {}

  ofSchool(actor: Actor, schoolId: number): Promise<MailReply[]> {
    return this.mails.ofSchool(this.transactions.reading, schoolId, reachOf(actor));
  }

  messageOrThrow(actor: Actor, id: number): Promise<string> {
    return this.mails.messageOrThrow(this.transactions.reading, id, reachOf(actor));
  }

  /** All letters or none. */
  async write(actor: Pick<Actor, 'personId' | 'name'>, schoolId: number, letters: readonly Letter[]): Promise<void> {
    if (letters.length === 0) return;
    await this.putAsFiles(await this.transactions.run((queries) => this.writeIn(queries, actor, schoolId, letters)));
  }

  /** In the transaction of what they tell about: the numbers of the letters, which are put as files once it is kept. */
  async writeIn(
    queries: Queries,
    actor: Pick<Actor, 'personId' | 'name'>,
    schoolId: number,
    letters: readonly Letter[],
  ): Promise<number[]> {
    if (letters.length === 0) return [];
    const ids = await this.outbox.write(queries, actor, schoolId, letters);
    const after = letters.map(({ to, subject }) => ({ to: to.name, subject }));
    const [thing] = letters.map(({ about }) => about);
    const entry = { action: 'write messages', thing: thing ?? 'outbox', before: null, after };
    await this.log.record(queries, actor, [entry]);
    return ids;
  }

  async putAsFiles(ids: readonly number[]): Promise<void> {
    await this.outbox.putAsFiles(await this.mails.messages(this.transactions.reading, ids));
  }
}

const reachOf = ({ grants }: Actor) => schoolsWhere(grants, 'manage-access', 'held');
