import { Injectable } from '@nestjs/common';
import type { SchoolPeriod } from '#server/calendar';
import { CopyReader, ThreadPool, workerFile, type Queries } from '#server/platform';
import { enrolledInText } from '#server/period-view';
import type { BookPolicies, BookTexts, ComparedBooks, ComparedValue } from './calculation-worker.js';
import type { KeptGrade } from './books/kept-grades.js';

const calculationWorker = workerFile(new URL('./calculation-worker.js', import.meta.url));

/** Reads many grade books at once and calculates them in a thread of its own. */
@Injectable()
export class BookCalculator {
  constructor(
    private readonly copies: CopyReader,
    private readonly threads: ThreadPool,
  ) {}

  /** What every student of some sections comes to in a period. */
  calculate(texts: BookTexts, policies: BookPolicies): Promise<KeptGrade[]> {
    return this.threads.run<KeptGrade[]>(calculationWorker, { ...texts, ...policies }, 'calculateBooks');
  }

  compare(
    texts: BookTexts,
    before: BookPolicies,
    after: BookPolicies,
    values: readonly ComparedValue[],
  ): Promise<ComparedBooks> {
    return this.threads.run<ComparedBooks>(calculationWorker, { ...texts, before, after, values }, 'compareBooks');
  }

  /** The books of sections in a period, as a transaction sees them; to be calculated after it, as that takes no database. */
  async read(queries: Queries, period: SchoolPeriod, sectionIds: readonly number[]): Promise<BookTexts> {
    const wanted = bookQueries(period, sectionIds);
    return {
      enrollments: await this.copies.readIn(queries, wanted.enrollments),
      assignments: await this.copies.readIn(queries, wanted.assignments),
      scores: await this.copies.readIn(queries, wanted.scores),
    };
  }
}

/** Numbers alone go into the text, as COPY takes no parameters. */
function bookQueries(period: SchoolPeriod, sectionIds: readonly number[]) {
  const sections = `'{${sectionIds.join(',')}}'::int[]`;
  const enrolled = `e.section_id = ANY(${sections}) AND ${enrolledInText(period)}`;
  const assigned = `a.section_id = ANY(${sections}) AND a.period_id = ${period.id}`;
  return {
    enrollments: `SELECT e.id, e.section_id FROM enrollments e WHERE ${enrolled} ORDER BY e.id`,
    assignments: `SELECT a.id, a.section_id, a.category_id, (a.possible * 100)::int,
      a.is_extra::int + 2 * (NOT a.is_counted)::int FROM assignments a WHERE ${assigned} ORDER BY a.id`,
    scores: `SELECT s.enrollment_id, s.assignment_id, coalesce((s.points * 100)::int, -1),
      coalesce(array_position('{missing,late,incomplete,exempt,absent,collected}'::text[], s.flag), 0)
      FROM assignments a JOIN scores s ON s.assignment_id = a.id JOIN enrollments e ON e.id = s.enrollment_id
      WHERE ${assigned} AND ${enrolled} AND (a.given_to IS NULL OR a.given_to @> to_jsonb(s.enrollment_id))
      ORDER BY s.enrollment_id, a.due_on, a.id`,
  };
}
