import { Injectable } from '@nestjs/common';
import { asc, eq, isNotNull, sql } from 'drizzle-orm';
import { Refusal, SecretBox, tables, type Queries, spokenNameOf } from '#server/platform';
import type { PlatformSnapshot } from './read-platform.js';

const { learningPlatforms } = tables;

export type KeptPlatform = typeof learningPlatforms.$inferSelect;
export type NightlyPlan = NonNullable<KeptPlatform['nightly']>;

@Injectable()
export class PlatformsRepository {
  constructor(private readonly secrets: SecretBox) {}

  /** Undefined when the school has a platform of that name. */
  async add(queries: Queries, values: typeof learningPlatforms.$inferInsert): Promise<number | undefined> {
    const [added] = await queries
      .insert(learningPlatforms)
      .values({ ...values, clientSecret: this.secrets.lock(values.clientSecret) })
      .onConflictDoNothing()
      .returning({ id: learningPlatforms.id });
    return added?.id;
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<KeptPlatform> {
    const [found] = await queries.select().from(learningPlatforms).where(eq(learningPlatforms.id, id));
    if (!found) throw new Refusal('not-found', { what: 'platform', id });
    return this.opened(found);
  }

  /** The platforms of a school with what they hold and how much of it nobody has decided. */
  async ofSchool(queries: Queries, schoolId: number) {
    return queries
      .select({
        platform: learningPlatforms,
        classes: sql<number>`(SELECT count(*)::int FROM platform_classes c WHERE c.platform_id = learning_platforms.id AND NOT c.is_gone)`,
        people: sql<number>`(SELECT count(*)::int FROM platform_people p WHERE p.platform_id = learning_platforms.id AND NOT p.is_gone)`,
        open: sql<number>`
          (SELECT count(*)::int FROM platform_classes c
           WHERE c.platform_id = learning_platforms.id AND NOT c.is_gone AND c.decision = 'open')
          + (SELECT count(DISTINCT (n.kind, lower(n.name)))::int FROM platform_names n
             LEFT JOIN platform_classes c ON c.id = n.class_id
             WHERE n.platform_id = learning_platforms.id AND NOT n.is_gone AND n.decision = 'open'
               AND (c.id IS NULL OR NOT c.is_gone AND c.decision <> 'ignored'))`,
      })
      .from(learningPlatforms)
      .where(eq(learningPlatforms.schoolId, schoolId))
      .orderBy(asc(learningPlatforms.id));
  }

  async withState(queries: Queries, state: KeptPlatform['state']): Promise<KeptPlatform[]> {
    const found = await queries.select().from(learningPlatforms).where(eq(learningPlatforms.state, state));
    return found.map((platform) => this.opened(platform));
  }

  /** A secret that cannot be opened is none: the platform will refuse it, and it is entered again. */
  private opened(platform: KeptPlatform): KeptPlatform {
    return { ...platform, clientSecret: this.secrets.open(platform.clientSecret) ?? '' };
  }

  /** The platforms that run by night: since when they wait for the next one, and in whose name. */
  async nightly(queries: Queries) {
    const rows = await queries
      .select({
        platform: learningPlatforms,
        lastNight: sql<string | null>`(SELECT max(r.started_at) FROM runs r
          WHERE r.platform_id = learning_platforms.id AND r.is_nightly)`,
        setBy: sql<string>`(SELECT ${spokenNameOf('p')} FROM people p
          WHERE p.id = (learning_platforms.nightly->>'setBy')::int)`,
      })
      .from(learningPlatforms)
      .where(isNotNull(learningPlatforms.nightly))
      .orderBy(asc(learningPlatforms.id));
    return rows.map(({ platform, lastNight, setBy }) => {
      const nightly = platform.nightly!;
      const [set, began] = [new Date(nightly.setAt), new Date(lastNight ?? nightly.setAt)];
      return { platform, nightly, setBy, lastBegan: began > set ? began : set };
    });
  }

  async change(queries: Queries, id: number, values: Partial<KeptPlatform>): Promise<void> {
    await queries.update(learningPlatforms).set(values).where(eq(learningPlatforms.id, id));
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(learningPlatforms).where(eq(learningPlatforms.id, id));
  }

  /** Puts what was read in the place of what was known. What was decided stays, also for what is gone for now. */
  async store(queries: Queries, id: number, { people, classes, members, names }: PlatformSnapshot): Promise<void> {
    for (const table of ['platform_people', 'platform_classes', 'platform_names'])
      await queries.execute(sql`UPDATE ${sql.identifier(table)} SET is_gone = true WHERE platform_id = ${id}`);
    await queries.execute(sql`
      INSERT INTO platform_people (platform_id, sourced_id, identifier, email, given_name, family_name, birth_date)
      SELECT ${id}, r."sourcedId", r.identifier, r.email, r."givenName", r."familyName", r."birthDate"
      FROM jsonb_to_recordset(${JSON.stringify(people)}::jsonb)
           AS r ("sourcedId" text, identifier text, email text, "givenName" text, "familyName" text, "birthDate" date)
      ON CONFLICT (platform_id, sourced_id) DO UPDATE SET is_gone = false, identifier = excluded.identifier,
        email = excluded.email, given_name = excluded.given_name, family_name = excluded.family_name,
        birth_date = excluded.birth_date`);
    await queries.execute(sql`
      INSERT INTO platform_classes (platform_id, sourced_id, title, code, term)
      SELECT ${id}, r."sourcedId", r.title, r.code, r.term
      FROM jsonb_to_recordset(${JSON.stringify(classes)}::jsonb) AS r ("sourcedId" text, title text, code text, term text)
      ON CONFLICT (platform_id, sourced_id) DO UPDATE SET is_gone = false, title = excluded.title,
        code = excluded.code, term = excluded.term`);
    await queries.execute(sql`
      DELETE FROM platform_members m USING platform_classes c WHERE c.id = m.class_id AND c.platform_id = ${id}`);
    await queries.execute(sql`
      INSERT INTO platform_members (class_id, person_id)
      SELECT c.id, p.id
      FROM jsonb_to_recordset(${JSON.stringify(members)}::jsonb) AS r ("classId" text, "personId" text)
      JOIN platform_classes c ON c.platform_id = ${id} AND c.sourced_id = r."classId"
      JOIN platform_people p ON p.platform_id = ${id} AND p.sourced_id = r."personId"`);
    await queries.execute(sql`
      INSERT INTO platform_names (platform_id, class_id, kind, sourced_id, name, weight)
      SELECT ${id}, c.id, r.kind, r."sourcedId", r.name, r.weight
      FROM jsonb_to_recordset(${JSON.stringify(names)}::jsonb)
           AS r (kind text, "classId" text, "sourcedId" text, name text, weight numeric)
      LEFT JOIN platform_classes c ON c.platform_id = ${id} AND c.sourced_id = r."classId"
      ON CONFLICT (platform_id, kind, sourced_id) DO UPDATE SET is_gone = false, class_id = excluded.class_id,
        name = excluded.name, weight = excluded.weight`);
  }
}
