import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Joined, OurClass } from '#core/runs';
import { spokenNameOf, type Queries } from '#server/platform';

/** What a platform's letters, and each class's groups and totals, are joined to. */
export interface PlatformNames {
  readonly letters: OurClass['letters'];
  readonly names: ReadonlyMap<
    number,
    { readonly groups: OurClass['groups']; readonly totals: OurClass['totals']; readonly weightSum: string | null }
  >;
}

@Injectable()
export class PlatformJoinsRepository {
  async people(queries: Queries, platformId: number): Promise<OurClass['people']> {
    const { rows } = await queries.execute<
      { key: string; name: string } & Pick<Joined<number>, keyof Joined<number>>
    >(sql`
      SELECT sourced_id AS key, ${spokenNameOf('platform_people')} AS name, decision,
             CASE WHEN decision = 'joined' THEN student_id END AS target
      FROM platform_people WHERE platform_id = ${platformId} AND NOT is_gone`);
    return new Map(rows.map(({ key, ...person }) => [key, person]));
  }

  async names(queries: Queries, platformId: number): Promise<PlatformNames> {
    const { rows } = await queries.execute<{
      classId: number | null;
      kind: 'group' | 'total' | 'letter';
      key: string;
      name: string;
      decision: Joined<number>['decision'];
      number: number | null;
      label: string | null;
      weightSum: string | null;
    }>(sql`
      SELECT class_id AS "classId", kind, sourced_id AS key, name, decision,
             CASE WHEN decision = 'joined' THEN coalesce(category_id, item_id) END AS number,
             CASE WHEN decision = 'joined' THEN label END AS label,
             trim_scale(sum(weight) OVER (PARTITION BY class_id))::text AS "weightSum"
      FROM platform_names WHERE platform_id = ${platformId} AND NOT is_gone`);
    const letters = new Map<string, Joined<string>>();
    const names = new Map<
      number,
      { groups: Map<string, Joined<number>>; totals: Map<string, Joined<number>>; weightSum: string | null }
    >();
    for (const { classId, kind, key, name, decision, number, label, weightSum } of rows) {
      if (kind === 'letter') letters.set(name, { decision, target: label });
      if (classId === null || kind === 'letter') continue;
      const own = names.get(classId) ?? { groups: new Map(), totals: new Map(), weightSum };
      (kind === 'group' ? own.groups : own.totals).set(key, { decision, target: number });
      names.set(classId, own);
    }
    return { letters, names };
  }
}
