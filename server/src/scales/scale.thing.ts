import { ThingOf, type Thing } from '#server/changes';
import type { PlaceOf, Queries } from '#server/platform';
import { ScaleChecks } from './scale-checks.service.js';
import { ScaleRecords } from './scale-records.repository.js';
import type { ScaleValue } from './scale-value.js';

/** Scales, by their numbers. What grades were posted under stays, and what sealed periods use. */
@ThingOf({ kind: 'scale', called: 'the scale', change: 'change-set-up', see: 'read-set-up' })
export class ScaleThing implements Thing<ScaleValue> {
  constructor(
    private readonly records: ScaleRecords,
    private readonly checks: ScaleChecks,
  ) {}

  within({ schoolId }: ScaleValue): [PlaceOf | null] {
    return [schoolId === null ? null : { kind: 'school', id: schoolId }];
  }

  title({ name }: ScaleValue): string {
    return name;
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, ScaleValue>> {
    return this.records.values(queries, ids.map(Number));
  }

  check(queries: Queries, values: ReadonlyMap<string, ScaleValue | null>): Promise<void> {
    return this.checks.refuseUnfit(queries, values);
  }

  async write(queries: Queries, values: ReadonlyMap<string, ScaleValue | null>): Promise<void> {
    for (const [id, value] of values)
      if (value) await this.records.put(queries, Number(id), value);
      else await this.records.remove(queries, Number(id));
  }
}
