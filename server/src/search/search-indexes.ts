import { Injectable } from '@nestjs/common';
import { SetUpMark } from '#server/period-view';
import { CopyReader, ThreadPool, Transactions, workerFile } from '#server/platform';
import type { BuiltIndex } from './search-worker.js';

/** In the order of their numbers, which is that in which equals are listed. */
export const searchKinds = ['section', 'course', 'student', 'staff'] as const;

/** Kind, id, school, teacher, names and codes of all that can be found, by kind and name. */
const everything = `
  SELECT kind, id, coalesce(school_id, 0), teachers, names, codes FROM (
    SELECT 0 AS kind, s.id, c.school_id,
      concat_ws(E'\\x1f', s.teacher_id, (SELECT string_agg(k.person_id::text, E'\\x1f') FROM section_co_teachers k WHERE k.section_id = s.id)) AS teachers,
      c.title || ' ' || s.number AS title, s.number AS place,
      concat_ws(E'\\x1f', c.title, s.number, t.family_name, t.given_name) AS names, c.code AS codes
    FROM sections s JOIN courses c ON c.id = s.course_id JOIN people t ON t.id = s.teacher_id
    UNION ALL
    SELECT 1, id, school_id, NULL, title, 0, title, code FROM courses
    UNION ALL
    SELECT CASE kind WHEN 'student' THEN 2 ELSE 3 END, id, school_id, NULL, family_name || ' ' || given_name, 0,
      concat_ws(E'\\x1f', family_name, given_name, preferred_name), concat_ws(E'\\x1f', number, sourced_id, email)
    FROM people
  ) AS found ORDER BY kind, title COLLATE "C", place, id`;

/** The words of all that can be found, made anew in a thread when the set-up or somebody's name was written since. */
@Injectable()
export class SearchIndexes {
  private kept: { readonly mark: string; readonly built: Promise<BuiltIndex> } | undefined;

  constructor(
    private readonly transactions: Transactions,
    private readonly mark: SetUpMark,
    private readonly copies: CopyReader,
    private readonly threads: ThreadPool,
  ) {}

  async now(): Promise<BuiltIndex> {
    const mark = await this.mark.now(this.transactions.reading);
    if (this.kept?.mark === mark) return this.kept.built;
    const built = this.build();
    this.kept = { mark, built };
    built.catch(() => (this.kept = undefined));
    return built;
  }

  private async build(): Promise<BuiltIndex> {
    const text = await this.copies.read(everything);
    return this.threads.run<BuiltIndex>(workerFile(new URL('./search-worker.js', import.meta.url)), { text });
  }
}
