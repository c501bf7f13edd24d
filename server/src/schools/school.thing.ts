import { sql } from 'drizzle-orm';
import { usesInWords } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { countUses, intArray, Refusal, tables, type Queries, type UseBy } from '#server/platform';

const { schools } = tables;

/** A school as the log tells of it; its calendar is a thing of its own. */
export interface SchoolValue {
  readonly code: string;
  readonly name: string;
  readonly shortName: string;
  readonly takesAttendance: boolean;
}

/** What keeps a school from being removed. */
export const schoolUses: readonly UseBy[] = [
  ['people', 'school_id', 'person'],
  ['courses', 'school_id', 'course'],
  ['course_defaults', 'school_id', 'course default'],
  ['scales', 'school_id', 'scale'],
  ['scale_placements', 'school_id', 'place where it is in force'],
  ['report_items', 'school_id', 'item'],
  ['report_item_rules', 'school_id', 'rule'],
  ['categories', 'school_id', 'category'],
  ['calculation_policies', 'school_id', 'policy'],
  ['learning_platforms', 'school_id', 'learning platform'],
  ['periods', 'school_id', 'period'],
  ['breaks', 'school_id', 'break'],
  ['file_imports', 'school_id', 'file'],
  ['stock_comments', 'school_id', 'stock comment'],
  ['mails', 'school_id', 'message'],
  ['account_roles', 'school_id', 'role of an account'],
  ['audit_runs', 'school_id', 'audit'],
  ['nightly_audits', 'school_id', 'setting of the audit'],
  ['audit_certificates', 'school_id', 'certificate'],
  ['audit_settings', 'school_id', 'setting of the audit'],
  ['seals', 'school_id', 'sealed period'],
];

/** Schools, by their numbers. One that something hangs on is not removed. */
@ThingOf({
  kind: 'school',
  called: 'the school',
  change: 'change-shared-set-up',
  see: 'see-school',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class SchoolThing implements Thing<SchoolValue> {
  title({ name }: SchoolValue): string {
    return name;
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SchoolValue>> {
    const rows = await queries
      .select()
      .from(schools)
      .where(sql`${schools.id} = ANY(${intArray(ids.map(Number))})`);
    return new Map(
      rows.map(({ id, code, name, shortName, takesAttendance }) => [
        String(id),
        { code, name, shortName, takesAttendance },
      ]),
    );
  }

  async check(queries: Queries, values: ReadonlyMap<string, SchoolValue | null>): Promise<void> {
    const removed = [...values].flatMap(([id, value]) => (value ? [] : [id]));
    const schoolsNow = await this.read(queries, removed);
    for (const [id, counts] of await countUses(queries, schoolUses, removed.map(Number)))
      throw new Refusal('in-use', {
        what: 'The school',
        name: schoolsNow.get(String(id))!.name,
        uses: usesInWords({ counts }),
        instead: 'Take that out of it first.',
      });
  }

  async write(queries: Queries, values: ReadonlyMap<string, SchoolValue | null>): Promise<void> {
    for (const [id, value] of values)
      if (value)
        await queries
          .insert(schools)
          .values({ id: Number(id), ...value })
          .onConflictDoUpdate({ target: schools.id, set: value });
      else await queries.delete(schools).where(sql`${schools.id} = ${Number(id)}`);
  }
}
