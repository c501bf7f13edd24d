import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { PeriodKind } from '#core/calendar';
import {
  extension,
  keyOf,
  sessionTypeOf,
  writeScoreScale,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeVersion,
} from '#core/exchange';
import { Settings, type Queries } from '#server/platform';
import { column, idOf, joinId, rowsOf } from './held-query.js';
import { demographicsOf, enrollmentsOf, teachingOf, usersOf } from './held-people.js';
import { lineItemsOf, resultsOf } from './held-scores.js';
import { roleOf, withKept, withKeptFields, withPrimaryOrg } from './held-with-kept.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';

/** Rows of a file, some of them or all. */
export type Stretch = readonly [file: ExchangeFile, rows: readonly ExchangeRow[]];

/** What we hold, as rows of the exchange format; by these a zip is compared with what is here, and of these one is made. */
@Injectable()
export class HeldRowsRepository {
  constructor(
    private readonly settings: Settings,
    private readonly rosterFields: RosterFieldsRepository,
  ) {}

  /** Everything, as one. */
  async all(queries: Queries, version: ExchangeVersion): Promise<ExchangeRows> {
    const rows = await this.allButResults(queries, version);
    const results: ExchangeRow[] = [];
    const lineItemIds = (rows.lineItems ?? []).map(({ sourcedId }) => sourcedId!);
    for await (const some of this.results(queries, lineItemIds)) results.push(...some);
    return { ...rows, results };
  }

  /**
   * Everything, a stretch of rows at a time, so that it is never held as one. Of scores, which are most of all there is, only
   * those of the named line items.
   */
  async *stretches(
    queries: Queries,
    version: ExchangeVersion,
    lineItemIds: readonly string[],
  ): AsyncGenerator<Stretch> {
    yield* Object.entries(await this.allButResults(queries, version)) as Stretch[];
    for await (const rows of this.results(queries, lineItemIds)) yield ['results', rows];
  }

  private async allButResults(queries: Queries, version: ExchangeVersion): Promise<ExchangeRows> {
    return withKept(await this.made(queries, version), await this.rosterFields.allButResults(queries), version);
  }

  private async *results(queries: Queries, lineItemIds: readonly string[]): AsyncGenerator<readonly ExchangeRow[]> {
    for await (const rows of resultsOf(queries, lineItemIds)) {
      const kept = await this.rosterFields.ofResults(
        queries,
        rows.map((row) => keyOf('results', row)),
      );
      yield withKeptFields('results', rows, kept);
    }
  }

  /** As `stretches`, but only what Wombat makes of what it works with. */
  async *stretchesMade(
    queries: Queries,
    version: ExchangeVersion,
    lineItemIds: readonly string[],
  ): AsyncGenerator<Stretch> {
    yield* Object.entries(await this.made(queries, version)) as Stretch[];
    for await (const rows of resultsOf(queries, lineItemIds)) yield ['results', rows];
  }

  /** What Wombat makes of what it works with alone, but for results. */
  private async made(queries: Queries, version: ExchangeVersion): Promise<ExchangeRows> {
    const users = await usersOf(queries, version);
    return {
      orgs: await this.orgs(queries),
      academicSessions: await this.sessions(queries),
      users: version === '1.1' ? users : users.map(withPrimaryOrg),
      ...(version === '1.2' ? { roles: users.map(roleOf) } : {}),
      demographics: await demographicsOf(queries),
      courses: await this.courses(queries),
      classes: await this.classes(queries),
      enrollments: [...(await enrollmentsOf(queries)), ...(await teachingOf(queries))],
      categories: await this.categories(queries),
      lineItems: await lineItemsOf(queries),
      ...(version === '1.2' ? { scoreScales: await this.scales(queries) } : {}),
    };
  }

  /** Ids of the sessions that are sealed. */
  async sealedSessions(queries: Queries): Promise<ReadonlySet<string>> {
    const rows = await rowsOf(
      queries,
      sql`SELECT ${idOf('period')} AS "sourcedId" FROM seals l ${joinId('period', sql`l.period_id`)}`,
    );
    return new Set(rows.map(({ sourcedId }) => sourcedId!));
  }

  /** Records that were merged into others, by the ids that rosters have of both. */
  async mergedIds(queries: Queries): Promise<ReadonlyMap<string, string>> {
    const { rows } = await queries.execute<{ gone: string; kept: string }>(sql`
      SELECT m.gone_sourced_id AS gone, p.sourced_id AS kept FROM merged_people m JOIN people p ON p.id = m.kept_id`);
    return new Map(rows.map(({ gone, kept }) => [gone, kept]));
  }

  private async orgs(queries: Queries): Promise<ExchangeRow[]> {
    const district = (await this.settings.value(queries, 'district')) as
      | { sourcedId: string; name: string }
      | undefined;
    const schools = await rowsOf(
      queries,
      sql`
      SELECT ${idOf('school')} AS "sourcedId", s.name, 'school' AS type, s.code AS identifier
      FROM schools s ${joinId('school', sql`s.id`)} ORDER BY s.id`,
    );
    if (!district) return schools;
    const { sourcedId, name } = district;
    return [
      { sourcedId, name, type: 'district' },
      ...schools.map((school) => ({ ...school, parentSourcedId: sourcedId })),
    ];
  }

  private async sessions(queries: Queries): Promise<ExchangeRow[]> {
    const rows = await rowsOf(
      queries,
      sql`
      SELECT ${idOf('period')} AS "sourcedId", p.name AS title, p.kind AS kind, p.starts_on::text AS "startDate",
             p.ends_on::text AS "endDate",
             CASE WHEN p.parent_id IS NOT NULL THEN coalesce(u.sourced_id, 'period-' || p.parent_id) END AS "parentSourcedId",
             coalesce(sc.sourced_id, s.code) AS ${column('school')},
             (SELECT max(extract(year FROM y.ends_on))::text FROM periods y
              WHERE y.school_id = p.school_id AND y.starts_on <= p.starts_on AND y.ends_on >= p.ends_on) AS "schoolYear"
      FROM periods p ${joinId('period', sql`p.id`)} JOIN schools s ON s.id = p.school_id
      LEFT JOIN sourced_ids u ON u.kind = 'period' AND u.our_id = p.parent_id
      LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id
      ORDER BY p.school_id, p.starts_on, p.ends_on DESC, p.id`,
    );
    return onceEach(rows).map(({ kind, ...row }) => ({
      ...row,
      type: sessionTypeOf(kind as PeriodKind),
      [extension('kind')]: kind!,
    }));
  }

  /** One that several schools have from one zip is the district's. */
  private async courses(queries: Queries): Promise<ExchangeRow[]> {
    const rows = await rowsOf(
      queries,
      sql`
      SELECT ${idOf('course')} AS "sourcedId", c.title, c.code AS "courseCode", coalesce(sc.sourced_id, s.code) AS "orgSourcedId",
             c.department AS subjects, c.kind AS ${column('kind')}, c.level AS ${column('level')},
             c.length AS ${column('length')}, trim_scale(c.credits)::text AS ${column('credits')},
             trim_scale(c.most_credits)::text AS ${column('mostCredits')}, c.on_transcript::text AS ${column('onTranscript')},
             c.counts_in_gpa::text AS ${column('countsInGpa')},
             c.allows_exempt::text AS ${column('allowsExempt')}, coalesce(sc.sourced_id, s.code) AS ${column('school')}
      FROM courses c ${joinId('course', sql`c.id`)} JOIN schools s ON s.id = c.school_id
      LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id ORDER BY c.id`,
    );
    const district = await this.districtId(queries);
    return onceEach(rows).map((row) =>
      row[extension('school')]!.includes(',') ? { ...row, orgSourcedId: district } : row,
    );
  }

  private classes(queries: Queries): Promise<ExchangeRow[]> {
    return rowsOf(
      queries,
      sql`
      SELECT ${idOf('section')} AS "sourcedId", c.title || ' ' || n.number AS title,
             coalesce(cc.sourced_id, 'course-' || c.id) AS "courseSourcedId", c.code || '-' || n.number AS "classCode",
             'scheduled' AS "classType", coalesce(sc.sourced_id, s.code) AS "schoolSourcedId",
             coalesce(pp.sourced_id, 'period-' || n.period_id) AS "termSourcedIds", c.department AS subjects,
             n.number::text AS ${column('number')}, n.starts_on::text AS ${column('startsOn')}, n.ends_on::text AS ${column('endsOn')},
             n.seats::text AS ${column('seats')}
      FROM sections n ${joinId('section', sql`n.id`)} JOIN courses c ON c.id = n.course_id JOIN schools s ON s.id = c.school_id
      LEFT JOIN sourced_ids cc ON cc.kind = 'course' AND cc.our_id = c.id
      LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id
      LEFT JOIN sourced_ids pp ON pp.kind = 'period' AND pp.our_id = n.period_id ORDER BY n.id`,
    );
  }

  private async categories(queries: Queries): Promise<ExchangeRow[]> {
    const rows = await rowsOf(
      queries,
      sql`
      SELECT ${idOf('category')} AS "sourcedId", g.name AS title, coalesce(sc.sourced_id, s.code) AS ${column('school')},
             CASE WHEN g.section_id IS NOT NULL THEN coalesce(n.sourced_id, 'section-' || g.section_id) END AS ${column('class')}
      FROM categories g ${joinId('category', sql`g.id`)} JOIN schools s ON s.id = g.school_id
      LEFT JOIN sourced_ids n ON n.kind = 'section' AND n.our_id = g.section_id
      LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id ORDER BY g.id`,
    );
    return onceEach(rows);
  }

  /** The newest version of each scale that has cut-offs, with all that its bands say beside. */
  private async scales(queries: Queries): Promise<ExchangeRow[]> {
    const rows = await rowsOf(
      queries,
      sql`
      SELECT ${idOf('scale')} AS "sourcedId", c.name AS title, c.kind AS type, c.kind AS ${column('scaleKind')},
             trim_scale(c.highest_level)::text AS ${column('highestLevel')}, coalesce(sc.sourced_id, s.code) AS "orgSourcedId",
             b.bands::text AS bands
      FROM scales c ${joinId('scale', sql`c.id`)} LEFT JOIN schools s ON s.id = c.school_id
      LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id
      JOIN LATERAL (
        SELECT jsonb_agg(jsonb_build_object('label', b.label, 'lowest', trim_scale(b.lowest)::text, 'points',
                 trim_scale(b.points)::text, 'passes', b.passes, 'earnsCredit', b.earns_credit, 'descriptor', b.descriptor)
                 ORDER BY b.lowest DESC) AS bands
        FROM bands b WHERE b.lowest IS NOT NULL AND NOT b.is_off AND b.version_id = (
          SELECT v.id FROM scale_versions v WHERE v.scale_id = c.id ORDER BY v.number DESC LIMIT 1)
      ) b ON b.bands IS NOT NULL ORDER BY c.id`,
    );
    const district = await this.districtId(queries);
    return rows.map(({ bands, ...row }) => ({
      ...row,
      orgSourcedId: row['orgSourcedId'] || district,
      scoreScaleValue: writeScoreScale(JSON.parse(bands!) as { label: string; lowest: string }[]),
      [extension('bands')]: bands!,
    }));
  }

  private async districtId(queries: Queries): Promise<string> {
    const district = (await this.settings.value(queries, 'district')) as { readonly sourcedId: string } | undefined;
    return district?.sourcedId ?? '';
  }
}

/** What several schools have under one id stands once, with all of them. */
function onceEach(rows: readonly ExchangeRow[]): ExchangeRow[] {
  const school = extension('school');
  const each = new Map<string, ExchangeRow>();
  for (const row of rows) {
    const known = each.get(row['sourcedId']!);
    each.set(row['sourcedId']!, known ? { ...known, [school]: `${known[school]},${row[school]}` } : row);
  }
  return [...each.values()];
}
