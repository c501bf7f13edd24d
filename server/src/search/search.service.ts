import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { mayAt, type Action } from '#core/access';
import { findIn } from '#core/search';
import type { NamedHitReply, SearchHitReply } from '#contract/search';
import {
  intArray,
  personNameOf,
  sectionNameOf,
  spokenNameOf,
  studentNumberOf,
  Transactions,
  type Actor,
} from '#server/platform';
import { FoundFindingsRepository } from './found-findings.repository.js';
import { searchKinds, SearchIndexes } from './search-indexes.js';

const mostOfKind = 8;

type SearchKind = (typeof searchKinds)[number];

/** What it takes to find one of a kind. */
const toFind: Readonly<Record<SearchKind, Action>> = {
  section: 'read-grades',
  course: 'read-set-up',
  student: 'read-people',
  staff: 'read-people',
};

/** What is shown of one of a kind; asked only of the few that are. */
const shown: Readonly<Record<SearchKind, SQL>> = {
  section: sql`SELECT s.id, ${sectionNameOf('c', 's')} AS title, ${spokenNameOf('t')} AS detail, c.school_id
    FROM sections s JOIN courses c ON c.id = s.course_id JOIN people t ON t.id = s.teacher_id`,
  course: sql`SELECT id, title, code AS detail, school_id FROM courses`,
  student: sql`SELECT id, ${personNameOf('people')} AS title, ${studentNumberOf('people')} AS detail, school_id FROM people`,
  staff: sql`SELECT id, ${personNameOf('people')} AS title, email AS detail, school_id FROM people`,
};

@Injectable()
export class SearchService {
  constructor(
    private readonly transactions: Transactions,
    private readonly indexes: SearchIndexes,
    private readonly findings: FoundFindingsRepository,
  ) {}

  /** What somebody may see of all that a text names, a few of each kind, the nearest first. */
  async find(actor: Actor, text: string): Promise<SearchHitReply[]> {
    const { index, places } = await this.indexes.now();
    const found = new Map<SearchKind, number[]>();
    for (const { at } of findIn(index, text)) {
      const kind = searchKinds[places.kinds[at]!]!;
      const own = found.get(kind) ?? [];
      const where = { schoolId: places.schools[at] || null, teacherIds: places.teachers[at]! };
      if (own.length === mostOfKind || !mayAt(actor, toFind[kind], where)) continue;
      found.set(kind, [...own, places.ids[at]!]);
    }
    const hits: SearchHitReply[] = [];
    for (const kind of searchKinds) {
      const ids = found.get(kind);
      if (ids) hits.push(...(await this.shownOf(kind, ids)));
    }
    return [...hits, ...(await this.findings.find(this.transactions.reading, actor, text, found.get('student') ?? []))];
  }

  private async shownOf(kind: SearchKind, ids: readonly number[]): Promise<NamedHitReply[]> {
    const { rows } = await this.transactions.reading.execute<Omit<NamedHitReply, 'kind'> & Record<string, unknown>>(sql`
      SELECT id, title, detail, school_id AS "schoolId" FROM (${shown[kind]}) AS found
      WHERE id = ANY(${intArray(ids)}) ORDER BY array_position(${intArray(ids)}, id)`);
    return rows.map((row) => ({ kind, ...row }));
  }
}
