import { Injectable } from '@nestjs/common';
import {
  replyOfEntry,
  type StudentReply,
  type TranscriptPeriodReply,
  type TranscriptReply,
} from '#contract/transcripts';
import { Readings } from '#server/changes';
import { CodesRepository } from '#server/codes';
import { SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { GpaPolicyRepository } from '#server/period-view';
import { DistrictZone, Transactions, type Actor, type Queries } from '#server/platform';
import { SealsRepository } from './seals.repository.js';
import { studentEntries } from './transcript-entries.js';

@Injectable()
export class TranscriptService {
  constructor(
    private readonly transactions: Transactions,
    private readonly seals: SealsRepository,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly gpa: GpaPolicyRepository,
    private readonly zone: DistrictZone,
    private readonly specialCodes: CodesRepository,
    private readonly readings: Readings,
  ) {}

  students(schoolId: number, text: string): Promise<StudentReply[]> {
    return this.seals.students(this.transactions.reading, schoolId, text.trim());
  }

  /** What `ofStudent` says, for somebody who is remembered as having read it. */
  async readBy(actor: Actor, studentId: number): Promise<TranscriptReply> {
    const reply = await this.ofStudent(studentId);
    await this.readings.note(actor, studentId, 'transcript', reply.student);
    return reply;
  }

  /** The sealed periods, and after them what is posted in periods not sealed yet, marked as in progress. */
  async ofStudent(studentId: number): Promise<TranscriptReply> {
    return this.transactions.snapshot(async (queries) => {
      const { schoolId, school, birthDate, ...student } = await this.seals.studentOrThrow(queries, studentId);
      const sealed = (await this.seals.sealedOf(queries, studentId)).map(({ sealedAt, entries, ...period }) => ({
        ...period,
        sealedAt: sealedAt.toISOString(),
        entries: entries.map(replyOfEntry),
      }));
      const inProgress = await this.inProgress(
        queries,
        schoolId!,
        studentId,
        new Set(sealed.map(({ periodId }) => periodId)),
      );
      const codes = await this.codes(queries);
      return {
        student: { ...student, birthDate },
        school,
        periods: [...sealed, ...inProgress],
        policy: await this.gpa.read(queries),
        codes,
      };
    });
  }

  private async inProgress(
    queries: Queries,
    schoolId: number,
    studentId: number,
    sealed: ReadonlySet<number>,
  ): Promise<TranscriptPeriodReply[]> {
    const all = await this.periods.ofSchool(queries, schoolId);
    const today = await this.zone.today(queries);
    const replies: TranscriptPeriodReply[] = [];
    for (const period of all.filter(({ id, startsOn }) => !sealed.has(id) && startsOn <= today)) {
      const { graded, snapshot } = await this.snapshots.ofStudent(queries, period, studentId);
      const entries = studentEntries(graded, snapshot.codes)
        .map(({ entry }) => replyOfEntry(entry))
        .toSorted((a, b) => a.courseTitle.localeCompare(b.courseTitle));
      if (entries.length > 0) replies.push({ periodId: period.id, name: period.name, sealedAt: null, entries });
    }
    return replies;
  }

  private async codes(queries: Queries) {
    const codes = await this.specialCodes.all(queries);
    return codes.map(({ code, meaning }) => ({ code, meaning }));
  }
}
