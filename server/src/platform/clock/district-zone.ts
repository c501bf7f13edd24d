import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { localTime, type Day, type LocalTime } from '#core/calendar';
import type { Queries } from '../database/open-database.js';
import { Clock } from './clock.js';
import { Settings } from '../settings/settings.js';

/** The district's time zone: in it an instant has its day, and a day its hours. */
@Injectable()
export class DistrictZone {
  constructor(
    private readonly settings: Settings,
    private readonly clock: Clock,
  ) {}

  /** The zone's name, such as "Europe/London"; the server's own until one is set. */
  async name(queries: Queries): Promise<string> {
    const zone = await this.settings.value(queries, 'time-zone');
    return typeof zone === 'string' ? zone : Intl.DateTimeFormat().resolvedOptions().timeZone;
  }

  /** The day and the time of day of an instant. */
  async localTime(queries: Queries, instant: Date): Promise<LocalTime> {
    return localTime(await this.name(queries), instant);
  }

  /** The day that it is. */
  async today(queries: Queries): Promise<Day> {
    return (await this.localTime(queries, this.clock.now())).day;
  }

  /** Says on which day an instant falls. */
  async dayOf(queries: Queries): Promise<(instant: Date) => Day> {
    const zone = await this.name(queries);
    return (instant) => localTime(zone, instant).day;
  }

  /** The day that each instant falls on. */
  async daysOf(queries: Queries, instants: readonly string[]): Promise<Day[]> {
    const dayOf = await this.dayOf(queries);
    return instants.map((instant) => dayOf(new Date(instant)));
  }

  /** Each instant so many days later at the same time of day, over a change to summer time too. */
  async moveByDays(queries: Queries, instants: readonly string[], days: number): Promise<string[]> {
    if (instants.length === 0) return [];
    const zone = await this.name(queries);
    const { rows } = await queries.execute<{ moved: string }>(sql`
      SELECT to_char(((at::timestamptz AT TIME ZONE ${zone} + make_interval(days => ${days})) AT TIME ZONE ${zone})
               AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS moved
      FROM jsonb_array_elements_text(${JSON.stringify(instants)}::jsonb) WITH ORDINALITY AS list(at, place)
      ORDER BY place`);
    return rows.map(({ moved }) => moved);
  }
}
