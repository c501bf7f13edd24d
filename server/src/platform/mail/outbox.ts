import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { createTransport } from 'nodemailer';
import type { Actor } from '../auth/actor.js';
import { Clock } from '../clock/clock.js';
import type { OpenDatabase, Queries } from '../database/open-database.js';
import { mails } from '../database/tables/index.js';
import { DATABASE } from '../database/transactions.js';

export interface Letter {
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  /** What it is about, such as "run 7". */
  readonly about: string;
}

/**
 * Keeps mail instead of sending it: in the database, and beside an embedded one as .eml files that any mail program opens.
 * A mail server takes its place where there is one.
 */
@Injectable()
export class Outbox {
  private readonly logger = new Logger(Outbox.name);
  private readonly composer = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });

  constructor(
    @Inject(DATABASE) private readonly database: OpenDatabase,
    private readonly clock: Clock,
  ) {}

  /** In the transaction of what it tells about: it is written when that is kept. The numbers of the letters. */
  async write(
    queries: Queries,
    actor: Pick<Actor, 'personId' | 'name'>,
    schoolId: number,
    letters: readonly Letter[],
  ): Promise<number[]> {
    const writtenAt = this.clock.now();
    const rows: (typeof mails.$inferInsert)[] = [];
    for (const { to, subject, text, about } of letters) {
      const sent = await this.composer.sendMail({
        from: { name: `${actor.name} by Wombat`, address: 'wombat@localhost' },
        to,
        subject,
        text,
        date: writtenAt,
      });
      rows.push({
        schoolId,
        writtenBy: actor.personId,
        writtenAt,
        recipientName: to.name,
        recipientAddress: to.address,
        subject,
        body: text,
        about,
        message: (sent.message as Buffer).toString('utf8'),
      });
    }
    if (rows.length === 0) return [];
    return (await queries.insert(mails).values(rows).returning({ id: mails.id })).map(({ id }) => id);
  }

  /** Puts letters that are kept beside the database as files; where there is no folder they stay in the database alone. */
  async putAsFiles(letters: readonly { readonly id: number; readonly message: string }[]): Promise<void> {
    const { folder } = this.database;
    if (folder === null) return;
    const outbox = join(folder, 'outbox');
    try {
      await mkdir(outbox, { recursive: true });
      for (const { id, message } of letters) await writeFile(join(outbox, fileNameOf(id)), message);
    } catch (error) {
      this.logger.error('messages are in the outbox, but not as files', error);
    }
  }
}

export function fileNameOf(id: number): string {
  return `letter-${String(id).padStart(5, '0')}.eml`;
}
