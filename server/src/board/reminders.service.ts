import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { sheetState } from '#core/board';
import { mayAt, ofSection } from '#core/access';
import type { ReminderReply, RemindersReply, RemindersRequest } from '#contract/board';
import { PeriodsRepository } from '#server/calendar';
import { revisionOf } from '#server/changes';
import { MailService } from '#server/mail';
import { sheetId, SheetContextService } from '#server/posting';
import { Clock, DistrictZone, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { BoardService, type BoardOfActor } from './board.service.js';
import { reminderSubject, reminderText, type RemindedSheet, type ReminderFacts } from './reminder-text.js';
import { RemindersRepository } from './reminders.repository.js';

/** A message that is not written yet, and the sheets that it is about. */
interface Planned extends ReminderReply {
  readonly about: readonly { readonly sectionId: number; readonly itemId: number; readonly times: number }[];
}

/** A sheet that is due and not signed off. */
interface OpenSheet extends RemindedSheet {
  readonly sectionId: number;
}

interface Plan {
  readonly schoolId: number;
  readonly reply: Omit<RemindersReply, 'isSent'>;
  readonly messages: readonly Planned[];
}

/**
 * Reminds teachers of sheets that are due and not signed off: one message for each teacher, looked at before it is sent, and kept
 * with each sheet that it was about.
 */
@Injectable()
export class RemindersService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly board: BoardService,
    private readonly contexts: SheetContextService,
    private readonly reminders: RemindersRepository,
    private readonly mail: MailService,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  /**
   * Sends what was looked at, or lets it be looked at where the request names no fingerprint.
   * @throws Refusal not-found, reminders-changed
   */
  async remind(actor: Actor, periodId: number, request: RemindersRequest): Promise<RemindersReply> {
    const { schoolId, reply, messages } = await this.plan(actor, periodId, request);
    if (request.fingerprint === undefined) return { ...reply, isSent: false };
    if (request.fingerprint !== reply.fingerprint) throw new Refusal('reminders-changed');
    if (messages.length === 0) return { ...reply, isSent: true };
    const letters = messages.map(({ teacher, address, subject, text }) => ({
      to: { name: teacher, address },
      subject,
      text,
      about: `board ${periodId}`,
    }));
    const ids = await this.transactions.run(async (queries) => {
      await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext(${`reminders ${periodId}`}))`);
      await this.refuseReminded(queries, periodId, messages);
      const written = await this.mail.writeIn(queries, actor, schoolId, letters);
      const added = messages.flatMap(({ teacherId, about }, at) =>
        about.map(({ sectionId, itemId }) => ({ sectionId, itemId, periodId, teacherId, mailId: written[at]! })),
      );
      await this.reminders.add(queries, actor, added);
      return written;
    });
    await this.mail.putAsFiles(ids);
    return { ...reply, isSent: true };
  }

  /** Of two that send at once, one does. */
  private async refuseReminded(queries: Queries, periodId: number, messages: readonly Planned[]): Promise<void> {
    const about = messages.flatMap((message) => message.about);
    const now = await this.reminders.ofSections(queries, periodId, [
      ...new Set(about.map(({ sectionId }) => sectionId)),
    ]);
    const isOther = about.some(
      ({ sectionId, itemId, times }) => (now.get(sheetId({ sectionId, itemId, periodId }))?.times ?? 0) !== times,
    );
    if (isOther) throw new Refusal('reminders-changed');
  }

  private plan(actor: Actor, periodId: number, { teacherIds, note = '' }: RemindersRequest): Promise<Plan> {
    return this.transactions.snapshot(async (queries) => {
      const board = await this.board.read(queries, actor, periodId);
      const isSealed = (await this.periods.sealedAt(queries, periodId)) !== null;
      const byTeacher = this.openSheets(actor, board, isSealed);
      const facts = {
        writer: actor.name,
        period: board.period.name,
        note: note.trim(),
        zone: await this.zone.name(queries),
      };
      const messages: Planned[] = [];
      const skipped: { teacher: string; why: string }[] = [];
      for (const teacher of await this.reminders.teachers(queries, teacherIds)) {
        const sheets = byTeacher.get(teacher.id) ?? [];
        const why =
          sheets.length === 0
            ? 'Nothing of theirs is open in this period.'
            : teacher.address === ''
              ? 'No e-mail address is known. Enter it under People.'
              : undefined;
        if (why !== undefined) skipped.push({ teacher: teacher.name, why });
        else messages.push(plannedMessage(teacher, { ...facts, teacher: teacher.name, sheets }, sheets));
      }
      const shown = messages.map(({ about: _about, ...message }): ReminderReply => message);
      const reply = { fingerprint: revisionOf(shown), messages: shown, skipped };
      return { schoolId: board.period.schoolId, reply, messages };
    });
  }

  /** The sheets that are due and not signed off, by teacher; of the sections whose messages the person may read. */
  private openSheets(
    actor: Actor,
    { period, view, sections }: BoardOfActor,
    isSealed: boolean,
  ): ReadonlyMap<number, OpenSheet[]> {
    const now = this.clock.now().toISOString();
    const items = new Map(view.reported.map((reported) => [reported.item.id, reported]));
    const byTeacher = new Map<number, OpenSheet[]>();
    for (const { section, sheets } of sections) {
      if (!mayAt(actor, 'read-outbox', ofSection(period.schoolId, section))) continue;
      for (const sheet of sheets) {
        const { item, ...reported } = items.get(sheet.itemId)!;
        const window = this.contexts.windowOf(reported);
        const { isOpen } = sheetState({ counts: sheet, isSignedOff: sheet.signedOff !== null, window, isSealed }, now);
        if (!isOpen || !window) continue;
        const own = byTeacher.get(section.teacherId) ?? [];
        byTeacher.set(section.teacherId, own);
        own.push({ sectionId: section.id, section: section.name, item: item.name, window, sheet });
      }
    }
    return byTeacher;
  }
}

function plannedMessage(
  { id, name, address }: { readonly id: number; readonly name: string; readonly address: string },
  facts: ReminderFacts,
  sheets: readonly OpenSheet[],
): Planned {
  const about = sheets.map(({ sectionId, sheet }) => ({
    sectionId,
    itemId: sheet.itemId,
    times: sheet.reminded?.times ?? 0,
  }));
  return {
    teacherId: id,
    teacher: name,
    address,
    sheets: sheets.length,
    earlier: Math.max(...about.map(({ times }) => times)),
    subject: reminderSubject(facts),
    text: reminderText(facts),
    about,
  };
}
