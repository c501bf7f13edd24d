import { Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import type { Queries } from '../database/open-database.js';
import { settings } from '../database/tables/index.js';

/** What holds for the whole district, by name. */
@Injectable()
export class Settings {
  /** The setting's value as it was kept; undefined where it was never set. */
  async value(queries: Queries, key: string): Promise<unknown> {
    const [row] = await queries.select({ value: settings.value }).from(settings).where(eq(settings.key, key));
    return row?.value;
  }

  /** @throws Error when a setting that every district has is missing */
  async valueOrThrow(queries: Queries, key: string): Promise<unknown> {
    const value = await this.value(queries, key);
    if (value === undefined) throw new Error(`the district has no setting "${key}"`);
    return value;
  }
}
