import { Injectable } from '@nestjs/common';
import { desc, eq, inArray, sql } from 'drizzle-orm';
import type { MailReply } from '#contract/mail';
import { Refusal, tables, type Queries } from '#server/platform';

const { mails, people } = tables;
const newest = 500;

@Injectable()
export class MailsRepository {
  /** Newest first. */
  async ofSchool(queries: Queries, schoolId: number): Promise<MailReply[]> {
    const rows = await queries
      .select({
        id: mails.id,
        to: mails.recipientName,
        address: mails.recipientAddress,
        subject: mails.subject,
        body: mails.body,
        about: mails.about,
        writtenAt: mails.writtenAt,
        writtenBy: sql<string>`${people.givenName} || ' ' || ${people.familyName}`,
      })
      .from(mails)
      .innerJoin(people, eq(people.id, mails.writtenBy))
      .where(eq(mails.schoolId, schoolId))
      .orderBy(desc(mails.id))
      .limit(newest);
    return rows.map(({ writtenAt, ...row }) => ({ ...row, writtenAt: writtenAt.toISOString() }));
  }

  async messages(queries: Queries, ids: readonly number[]): Promise<{ id: number; message: string }[]> {
    if (ids.length === 0) return [];
    return queries
      .select({ id: mails.id, message: mails.message })
      .from(mails)
      .where(inArray(mails.id, [...ids]));
  }

  /** @throws Refusal not-found */
  async messageOrThrow(queries: Queries, id: number): Promise<string> {
    const [found] = await this.messages(queries, [id]);
    if (!found) throw new Refusal('not-found', { what: 'letter', id });
    return found.message;
  }
}
