import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SearchHitReply } from '#contract/search';
import { Transactions, type Actor, personNameOf, sectionNameOf, spokenNameOf, studentNumberOf } from '#server/platform';

const mostHits = 24;

@Injectable()
export class SearchService {
  constructor(private readonly transactions: Transactions) {}

  /** Students and sections of whose name, code or number every word typed begins a word, with or without a comma between family and given name; a teacher finds their own. */
  async find(actor: Actor, text: string): Promise<SearchHitReply[]> {
    const words = text
      .toLowerCase()
      .split(/[\s,]+/)
      .filter(Boolean)
      .slice(0, 6);
    if (words.length === 0) return [];
    const patterns = words.map((word) => `% ${word.replace(/[\\%_]/g, '\\$&')}%`);
    const holdsAll = sql.join(
      patterns.map((pattern) => sql`haystack LIKE ${pattern}`),
      sql` AND `,
    );
    const ownOnly = actor.role === 'teacher' ? sql`AND kind = 'section' AND teacher_id = ${actor.personId}` : sql``;
    const { rows } = await this.transactions.reading.execute<SearchHitReply & Record<string, unknown>>(sql`
      SELECT kind, id, title, detail, school_id AS "schoolId" FROM (
        SELECT 'section' AS kind, s.id, ${sectionNameOf('c', 's')} AS title, ${spokenNameOf('t')} AS detail,
               c.school_id, s.teacher_id, lower(' ' || ${sectionNameOf('c', 's')} || ' ' || c.code || ' ' || t.family_name) AS haystack
        FROM sections s JOIN courses c ON c.id = s.course_id JOIN people t ON t.id = s.teacher_id
        UNION ALL
        SELECT 'student', id, ${personNameOf('people')}, ${studentNumberOf('people')}, school_id, NULL,
               lower(concat(' ', given_name, ' ', family_name, ' ', number, ' ', sourced_id, ' ', email))
        FROM people WHERE kind = 'student'
      ) everything
      WHERE ${holdsAll} ${ownOnly}
      ORDER BY kind, title, id LIMIT ${mostHits}`);
    return rows;
  }
}
