import { Injectable } from '@nestjs/common';
import { and, eq } from 'drizzle-orm';
import { foldKey, type Directory, type RosterEntry } from '#core/transfer';
import type { SchoolPeriod } from '#server/calendar';
import { tables, type Queries } from '#server/platform';
import { GradeRowsRepository } from '#server/posting';

const { enrollments, people } = tables;

/** Who the people in a file may be. */
@Injectable()
export class DirectoryRepository {
  constructor(private readonly rows: GradeRowsRepository) {}

  async ofSection(queries: Queries, itemId: number, period: SchoolPeriod, sectionId: number): Promise<Directory> {
    const students = await this.students(queries);
    const emails = new Map(students.map(({ id, email }) => [id, email]));
    const roster = new Map<string, RosterEntry>();
    for (const row of await this.rows.ofSections(queries, itemId, period, [sectionId])) {
      const entry: RosterEntry = {
        enrollmentId: row.enrollmentId,
        name: row.student,
        withdrawnOn: row.withdrawnOn,
        computed: row.computed?.file ? row.computed.percent : null,
      };
      roster.set(foldKey(row.studentNumber), entry);
      roster.set(foldKey(emails.get(row.studentId) ?? row.studentNumber), entry);
    }
    const others = new Map<string, string>();
    for (const { sourcedId, email, familyName, givenName } of students) {
      for (const key of [sourcedId, email].map(foldKey))
        if (!roster.has(key)) others.set(key, `${familyName}, ${givenName}`);
    }
    return { roster, others };
  }

  /** Folded ids of every student, with the sections of the school they are in. */
  async sectionsByStudent(queries: Queries): Promise<ReadonlyMap<string, ReadonlySet<number>>> {
    const rows = await queries
      .select({ sourcedId: people.sourcedId, email: people.email, sectionId: enrollments.sectionId })
      .from(people)
      .leftJoin(enrollments, eq(enrollments.studentId, people.id))
      .where(eq(people.kind, 'student'));
    const sections = new Map<string, Set<number>>();
    for (const { sourcedId, email, sectionId } of rows) {
      for (const key of [sourcedId, email].map(foldKey)) {
        const own = sections.get(key) ?? new Set();
        if (sectionId !== null) own.add(sectionId);
        sections.set(key, own);
      }
    }
    return sections;
  }

  private students(queries: Queries) {
    return queries
      .select({
        id: people.id,
        sourcedId: people.sourcedId,
        email: people.email,
        familyName: people.familyName,
        givenName: people.givenName,
      })
      .from(people)
      .where(and(eq(people.kind, 'student')));
  }
}
