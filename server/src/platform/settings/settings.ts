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

  async put(queries: Queries, key: string, value: unknown): Promise<void> {
    await queries.insert(settings).values({ key, value }).onConflictDoUpdate({ target: settings.key, set: { value } });
  }

  async remove(queries: Queries, key: string): Promise<void> {
    await queries.delete(settings).where(eq(settings.key, key));
  }
}
