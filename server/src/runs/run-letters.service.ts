import { Injectable } from '@nestjs/common';
import type { RunReason, RunReasonCode } from '#core/runs';
import { formatDecimal, decimalOrThrow, roundHalfUp, roundTo, fromDecimal } from '#core/numbers';
import { reasonSentence, type RunLetterReply } from '#contract/runs';
import { MailService } from '#server/mail';
import { PlatformsRepository } from '#server/platforms';
import { Transactions, type Actor, type Letter } from '#server/platform';
import { counted } from '#contract/messages';
import { LedgerRepository, type TeachersLine } from './ledger.repository.js';
import { RunsRepository } from './runs.repository.js';

/** What only the teacher can mend, on the platform. */
const forTeachers: readonly RunReasonCode[] = [
  'no-date',
  'no-points',
  'too-many-points',
  'name-missing',
  'name-too-long',
  'given-to-nobody',
  'not-marked',
  'unpublished',
  'score-above',
  'score-negative',
  'score-digits',
  'score-unreadable',
  'percent-too-high',
];
/** Lines of one letter; the rest is counted. */
const mostLines = 40;

/** Tells teachers what of theirs a run did not send and what would mend it. */
@Injectable()
export class RunLettersService {
  constructor(
    private readonly transactions: Transactions,
    private readonly runs: RunsRepository,
    private readonly ledger: LedgerRepository,
    private readonly platforms: PlatformsRepository,
    private readonly mail: MailService,
  ) {}

  /** The letters as they would be written, one for each teacher who has something to mend. */
  async preview(actor: Pick<Actor, 'name'>, runId: number): Promise<RunLetterReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const { platform, period } = await this.runs.summaryOrThrow(queries, runId);
      const byTeacher = new Map<number, TeachersLine[]>();
      for (const row of await this.ledger.ofTeachers(queries, runId, forTeachers))
        byTeacher.set(row.teacherId, [...(byTeacher.get(row.teacherId) ?? []), row]);
      return [...byTeacher.values()].map((rows) => ({
        to: rows[0]!.teacher,
        address: rows[0]!.address,
        subject: `${counted(rows.length, 'thing')} on ${platform} did not come over into ${period}`,
        text: textOf(actor.name, platform, period, rows),
        lines: rows.length,
      }));
    });
  }

  async write(actor: Actor, runId: number): Promise<RunLetterReply[]> {
    const letters = await this.preview(actor, runId);
    const { platformId } = await this.runs.byIdOrThrow(this.transactions.reading, runId);
    const { schoolId } = await this.platforms.byIdOrThrow(this.transactions.reading, platformId);
    await this.mail.write(
      actor,
      schoolId,
      letters.map(({ to, address, subject, text }): Letter => ({
        to: { name: to, address },
        subject,
        text,
        about: `run ${runId}`,
      })),
    );
    return letters;
  }
}

function textOf(writer: string, platform: string, period: string, rows: readonly TeachersLine[]): string {
  const lines = rows.slice(0, mostLines).map(({ section, name, column, reasons }) => {
    const what = column === null ? name : `${name}, ${column}`;
    return `- ${section}: ${what}. ${reasons
      .filter(({ code }) => forTeachers.includes(code))
      .map(say)
      .join(' ')}`;
  });
  return [
    `Dear ${rows[0]!.teacher},`,
    '',
    `when ${platform} was carried over into ${period}, the following stayed behind:`,
    '',
    ...lines,
    ...(rows.length > mostLines ? [`- and ${rows.length - mostLines} more.`] : []),
    '',
    `Put right on ${platform}, it comes over with the next run. Nothing is to be done in Wombat.`,
    '',
    writer,
    '',
  ].join('\r\n');
}

const longDay = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' });

function say(reason: RunReason): string {
  return reasonSentence(reason, {
    day: (day) => longDay.format(new Date(`${day}T00:00:00Z`)),
    percent: (percent) => `${formatDecimal(roundTo(fromDecimal(decimalOrThrow(percent)), 1, roundHalfUp))} %`,
  });
}
