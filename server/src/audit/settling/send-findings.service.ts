import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { findingKey, ruleById, type Finding } from '#core/audit';
import type { FindingsMessageReply, SendFindingsReply, SendFindingsRequest } from '#contract/audit';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { revisionOf } from '#server/changes';
import { MailService } from '#server/mail';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, subjectOf, type FindingNames } from '../runs/audit-runs.repository.js';
import { FindingNoticesRepository, type ToldTeacher } from './finding-notices.repository.js';
import { messageSubject, messageText, type ToldGroup } from './findings-message.js';

interface Planned {
  readonly reply: FindingsMessageReply;
  readonly findings: readonly Finding[];
}

/** A finding with its names, in the section of the teacher who is told. */
interface Told {
  readonly finding: Finding;
  readonly names: FindingNames;
}

/** Tells teachers of what was found in their sections: one message each, looked at before it is sent. */
@Injectable()
export class SendFindingsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly runs: AuditRunsRepository,
    private readonly notices: FindingNoticesRepository,
    private readonly mail: MailService,
  ) {}

  /** Previews where the request names no fingerprint. @throws Refusal not-found, reminders-changed */
  async send(actor: Actor, { fingerprint, ...request }: SendFindingsRequest): Promise<SendFindingsReply> {
    if (fingerprint === undefined) {
      const { reply } = await this.transactions.snapshot((queries) => this.plan(queries, actor, request));
      return { ...reply, isSent: false };
    }
    const { reply, ids } = await this.transactions.run(async (queries) => {
      // Of two that send at once, the second sees what the first has told.
      await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext(${`findings ${request.periodId}`}))`);
      const { period, messages, reply: planned } = await this.plan(queries, actor, request);
      if (planned.fingerprint !== fingerprint) throw new Refusal('reminders-changed');
      const letters = messages.map(({ reply: { teacher, address, subject, text } }) => ({
        to: { name: teacher, address },
        subject,
        text,
        about: `findings ${period.id}`,
      }));
      const written = await this.mail.writeIn(queries, actor, period.schoolId, letters);
      const told = messages.flatMap(({ reply: { teacherId }, findings }, at) =>
        findings.map(({ ruleId, enrollmentId, sectionId, courseId, itemId }) => ({
          ruleId,
          enrollmentId,
          sectionId,
          courseId,
          itemId,
          teacherId,
          periodId: period.id,
          mailId: written[at]!,
        })),
      );
      await this.notices.add(queries, told);
      return { reply: planned, ids: written };
    });
    await this.mail.putAsFiles(ids);
    return { ...reply, isSent: true };
  }

  private async plan(
    queries: Queries,
    actor: Actor,
    { periodId, findings: wanted, note = '' }: Omit<SendFindingsRequest, 'fingerprint'>,
  ): Promise<{ period: SchoolPeriod; messages: Planned[]; reply: Omit<SendFindingsReply, 'isSent'> }> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const once = [...new Map(wanted.map((key) => [findingKey(key), key])).values()];
    const findings = await this.runs.inLastOrThrow(queries, periodId, once);
    const names = await this.runs.namesOf(queries, findings);
    const told = findings.map((finding, at): Told => ({ finding, names: names[at]! }));
    const sections = [...new Set(names.flatMap(({ sectionId }) => sectionId ?? []))];
    const teachers = await this.notices.teachersOf(queries, sections);
    const before = await this.notices.ofPeriod(queries, periodId);
    const facts = { writer: actor.name, period: period.name, note: note.trim() };
    const messages: Planned[] = [];
    const skipped = told
      .filter(({ names: { sectionId } }) => sectionId === null)
      .map((each) => ({ who: subjectOf(each.names), why: 'It is about no section, so nobody’s to answer.' }));
    for (const [teacher, own] of byTeacher(told, teachers)) {
      if (teacher.address === '') {
        skipped.push({ who: teacher.name, why: 'No e-mail address is known. Enter it under People.' });
        continue;
      }
      const groups = groupsOf(own);
      messages.push({
        findings: own.map(({ finding }) => finding),
        reply: {
          teacherId: teacher.id,
          teacher: teacher.name,
          address: teacher.address,
          findings: own.length,
          earlier: own.filter(({ finding }) => before.has(findingKey(finding))).length,
          subject: messageSubject({ ...facts, groups }),
          text: messageText({ ...facts, teacher: teacher.name, groups }),
        },
      });
    }
    const shown = messages.map(({ reply }) => reply);
    return { period, messages, reply: { fingerprint: revisionOf(shown), messages: shown, skipped } };
  }
}

/** Each teacher once, with what was found in their sections, in the order of names. */
function byTeacher(told: readonly Told[], teachers: readonly ToldTeacher[]): [ToldTeacher, Told[]][] {
  const found = new Map<number, [ToldTeacher, Told[]]>();
  for (const teacher of teachers) {
    const own = found.get(teacher.id) ?? [teacher, []];
    own[1].push(...told.filter(({ names }) => names.sectionId === teacher.sectionId));
    found.set(teacher.id, own);
  }
  return [...found.values()];
}

function groupsOf(told: readonly Told[]): ToldGroup[] {
  const groups = new Map<string, { where: string; rule: string; findings: number }>();
  for (const { finding, names } of told) {
    const where = [names.section, names.itemName].filter(Boolean).join(', ');
    const rule = ruleById.get(finding.ruleId)?.summary ?? finding.ruleId;
    const own = groups.get(`${where}/${rule}`) ?? { where, rule, findings: 0 };
    own.findings++;
    groups.set(`${where}/${rule}`, own);
  }
  return [...groups.values()];
}
