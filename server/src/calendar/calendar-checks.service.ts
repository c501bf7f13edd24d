import { Injectable } from '@nestjs/common';
import { checkCalendar, type CalendarFault, type CheckedWindow } from '#core/calendar';
import { calendarFaultSentence } from '#contract/calendar';
import { countUses, DistrictZone, Refusal, type FieldFault, type Queries } from '#server/platform';
import { usesInWords } from '#contract/messages';
import type { CalendarBody } from './calendar-value.js';
import { CalendarRepository, periodUses } from './calendar.repository.js';

/** What a calendar may not be. */
@Injectable()
export class CalendarChecks {
  constructor(
    private readonly calendar: CalendarRepository,
    private readonly zone: DistrictZone,
  ) {}

  async faultsOf(queries: Queries, schoolId: number, body: CalendarBody): Promise<CalendarFault[]> {
    const { weekdays, periods, breaks, windows } = body;
    const instants = windows.flatMap(({ opensAt, closesAt }) => [opensAt, closesAt]);
    const days = await this.zone.daysOf(queries, instants);
    const items = new Map((await this.calendar.itemsOf(queries, schoolId)).map(({ id, name }) => [id, name]));
    const checked = windows.map((window, index): CheckedWindow => ({
      ...window,
      id: index,
      itemName: items.get(window.itemId) ?? '',
      opensOn: days[index * 2]!,
      closesOn: days[index * 2 + 1]!,
    }));
    const sections = await this.calendar.sectionsOf(queries, schoolId);
    return checkCalendar({
      weekdays,
      periods,
      breaks: breaks.map((each, id) => ({ ...each, id })),
      windows: checked,
      sections,
    });
  }

  /**
   * Whether a school's calendar may become another; each fault names its place in the lists of that one.
   * @throws Refusal fields-wrong, period-sealed, calendar-faulty, in-use
   */
  async refuseUnfit(queries: Queries, schoolId: number, before: CalendarBody, after: CalendarBody): Promise<void> {
    const items = new Set((await this.calendar.itemsOf(queries, schoolId)).map(({ id }) => id));
    refuseUnknown(items, after);
    const sealed = await this.calendar.sealedOf(queries, schoolId);
    for (const period of before.periods.filter(({ id }) => sealed.has(id))) {
      const kept = after.periods.find(({ id }) => id === period.id);
      if (kept && (kept.startsOn !== period.startsOn || kept.endsOn !== period.endsOn))
        throw new Refusal('period-sealed', { period: period.name });
    }
    refuseFaults(await this.faultsOf(queries, schoolId, after), after);
    const kept = new Set(after.periods.map(({ id }) => id));
    const removed = before.periods.filter(({ id }) => !kept.has(id)).map(({ id }) => id);
    for (const [id, counts] of await countUses(queries, periodUses, removed)) {
      const { name } = before.periods.find((period) => period.id === id)!;
      const instead = 'Change its name or days instead, or move what hangs on it first.';
      throw new Refusal('in-use', { what: 'The period', name, uses: usesInWords({ counts }), instead });
    }
  }
}

/** What hangs together with nothing. */
function refuseUnknown(items: ReadonlySet<number>, { periods, windows }: CalendarBody): void {
  const faults: FieldFault[] = [];
  const own = new Set(periods.map(({ id }) => id));
  periods.forEach(({ id, parentId }, index) => {
    if (parentId !== null && (!own.has(parentId) || parentId === id))
      faults.push({ field: `periods.${index}.parentId`, detail: 'another period of this calendar' });
  });
  windows.forEach(({ itemId, periodId }, index) => {
    if (!items.has(itemId)) faults.push({ field: `windows.${index}.itemId`, detail: 'an item of this school' });
    if (!own.has(periodId)) faults.push({ field: `windows.${index}.periodId`, detail: 'a period of this calendar' });
  });
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
}

function refuseFaults(faults: readonly CalendarFault[], { periods }: CalendarBody): void {
  const blocking = faults.filter(({ severity }) => severity === 'blocks');
  const [first] = blocking;
  if (!first) return;
  const says = (fault: CalendarFault) => calendarFaultSentence(fault, (day) => day);
  const lists = { period: 'periods', break: 'breaks', window: 'windows', section: 'sections' } as const;
  const fields = blocking.map((fault) => {
    const at = fault.of === 'period' ? periods.findIndex(({ id }) => id === fault.id) : fault.id;
    return { field: `${lists[fault.of]}.${at}`, detail: says(fault) };
  });
  throw new Refusal('calendar-faulty', { reason: says(first) }, fields);
}
