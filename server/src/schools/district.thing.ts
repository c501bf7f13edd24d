import { ThingOf, type Thing } from '#server/changes';
import { Settings, type Queries } from '#server/platform';

/** The district as the log tells of it. */
export interface DistrictValue {
  readonly name: string;
  /** Null for the server's own. */
  readonly timeZone: string | null;
}

interface KeptDistrict {
  readonly sourcedId: string;
  readonly name: string;
}

/** The one district that all schools belong to. */
@ThingOf({
  kind: 'district',
  called: 'the district',
  change: 'change-shared-set-up',
  see: 'read-set-up',
  at: () => null,
})
export class DistrictThing implements Thing<DistrictValue> {
  constructor(private readonly settings: Settings) {}

  title({ name }: DistrictValue): string {
    return name;
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, DistrictValue>> {
    const kept = (await this.settings.value(queries, 'district')) as KeptDistrict | undefined;
    const zone = await this.settings.value(queries, 'time-zone');
    const value = { name: kept?.name ?? '', timeZone: typeof zone === 'string' ? zone : null };
    return new Map(kept ? ids.map((id) => [id, value]) : []);
  }

  async check(): Promise<void> {
    // Any name will do, and the zone was looked at when it came.
  }

  async write(queries: Queries, values: ReadonlyMap<string, DistrictValue | null>): Promise<void> {
    for (const value of values.values()) {
      const kept = (await this.settings.value(queries, 'district')) as KeptDistrict | undefined;
      // The id by which rosters know it stays.
      if (value) await this.settings.put(queries, 'district', { sourcedId: 'district', ...kept, name: value.name });
      else await this.settings.remove(queries, 'district');
      if (value?.timeZone) await this.settings.put(queries, 'time-zone', value.timeZone);
      else await this.settings.remove(queries, 'time-zone');
    }
  }
}
