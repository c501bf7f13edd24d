import { Injectable } from '@nestjs/common';
import { and, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Schools } from '#core/access';
import type { MailReply } from '#contract/mail';
import { intArray, Refusal, tables, type Queries, spokenName } from '#server/platform';

const { mails, people } = tables;
const newest = 500;

@Injectable()
export class MailsRepository {
  /**
   * Newest first. A link to choose a password by is a way into the account: it is not for whoever has no say in all that the
   * account may do.
   * @param reach the schools in whose roles the reader has a say
   */
  async ofSchool(queries: Queries, schoolId: number, reach: Schools): Promise<MailReply[]> {
    const rows = await queries
      .select({
        id: mails.id,
        to: mails.recipientName,
        address: mails.recipientAddress,
        subject: mails.subject,
        body: mails.body,
        about: mails.about,
        writtenAt: mails.writtenAt,
        writtenBy: spokenName,
      })
      .from(mails)
      .innerJoin(people, eq(people.id, mails.writtenBy))
      .where(and(eq(mails.schoolId, schoolId), isForReader(reach)))
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

  /** @throws Refusal not-found, as for one that is not for the reader */
  async messageOrThrow(queries: Queries, id: number, reach: Schools): Promise<string> {
    const [found] = await queries
      .select({ message: mails.message })
      .from(mails)
      .where(and(eq(mails.id, id), isForReader(reach)));
    if (!found) throw new Refusal('not-found', { what: 'letter', id });
    return found.message;
  }
}

function isForReader(reach: Schools): SQL | undefined {
  if (reach === 'all') return undefined;
  return sql`NOT EXISTS (SELECT 1 FROM accounts a JOIN account_roles r ON r.account_id = a.id
    WHERE ${mails.about} = 'account ' || a.username
      AND (r.school_id IS NULL OR NOT r.school_id = ANY(${intArray([...reach])})))`;
}
