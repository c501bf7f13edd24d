import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { CalendarChecks } from './calendar-checks.service.js';
import type { CalendarBody } from './calendar-value.js';
import { CalendarRepository } from './calendar.repository.js';

const nothing: CalendarBody = { weekdays: [], periods: [], breaks: [], windows: [] };

/** A school's calendar with all its years, by the school's number: its parts are checked and changed together. */
@ThingOf({
  kind: 'calendar',
  called: 'the calendar',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class CalendarThing implements Thing<CalendarBody> {
  constructor(
    private readonly calendar: CalendarRepository,
    private readonly checks: CalendarChecks,
  ) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, CalendarBody>> {
    const found = new Map<string, CalendarBody>();
    for (const id of await this.calendar.known(queries, ids.map(Number)))
      found.set(String(id), await this.calendar.valueOf(queries, id));
    return found;
  }

  async check(queries: Queries, values: ReadonlyMap<string, CalendarBody | null>): Promise<void> {
    for (const [id, value] of values) {
      const before = await this.calendar.valueOf(queries, Number(id));
      await this.checks.refuseUnfit(queries, Number(id), before, value ?? nothing);
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, CalendarBody | null>): Promise<void> {
    for (const [id, value] of values) await this.calendar.put(queries, Number(id), value ?? nothing);
  }
}
