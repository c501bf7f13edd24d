import type { PeriodKind } from '#core/calendar';
import { parseDecimal } from '#core/numbers';
import { checkItem } from '#core/report-items';
import {
  itemFaultSentence,
  itemOfBody,
  type ItemBody,
  type ItemReply,
  type PartBody,
  type ReportItemsReply,
} from '#contract/report-items';

import { shortWeight } from '../ui/weight-bar';

/** What a new item is until it is said otherwise: posted in each period of the kind that is looked at. */
export function newItem({ periods }: ReportItemsReply, lookedAt?: PeriodKind): ItemBody {
  const kinds = periods.map(({ kind }) => kind);
  const usual = kinds.find((kind) => kind === lookedAt) ?? kinds.find((kind) => kind !== 'year');
  return {
    name: '',
    heading: '',
    kind: 'period',
    periodKind: usual ?? 'year',
    ordinals: null,
    scaleId: null,
    categoryId: null,
    source: 'hand',
    countBy: 'percent',
    parts: [],
    digits: 1,
    rounding: 'halfUp',
    highestPercent: '100',
    commentRule: 'optional',
    commentBelow: null,
    commentLength: 100,
    familyView: 'label',
    familyTime: 'closed',
    failingNeedsLastDate: false,
    asksHours: false,
    onTranscript: false,
    countsInGpa: true,
  };
}

export function bodyOfReply(item: ItemReply): ItemBody {
  const {
    id: _id,
    revision: _revision,
    scaleName: _name,
    labels: _labels,
    descriptors: _words,
    postedGrades: _posted,
    ...body
  } = item;
  return { ...body, parts: body.parts.map((part) => ({ ...part, weight: shortWeight(part.weight) })) };
}

/** Whether what is computed for the item may become another value or have another label. */
export function changesValues(before: ItemBody, after: ItemBody): boolean {
  const settings = (body: ItemBody) => {
    const { periodKind, ordinals, scaleId, source, categoryId, countBy, parts, digits, rounding } = body;
    return JSON.stringify([periodKind, ordinals, scaleId, source, categoryId, countBy, parts, digits, rounding]);
  };
  return settings(before) !== settings(after);
}

/** What keeps the item from being saved, as far as the browser can tell; the rest is the server's to say. */
export function itemFaults(body: ItemBody, id: number, reply: ReportItemsReply): string[] {
  const faults: string[] = [];
  if (body.name.trim() === '') faults.push('The item needs a name, such as Quarter grade.');
  if (body.heading.trim() === '') faults.push('The item needs a short heading for its column.');
  const unreadable = body.parts.filter(({ weight }) => (parseDecimal(weight)?.digits ?? 9) > 2);
  if (body.source === 'composite' && unreadable.length > 0) {
    return [...faults, 'Every weight is a number with at most two decimals, such as 40.'];
  }
  const item = itemOfBody(body, { id, schoolId: 0, position: 0 });
  const others = reply.items
    .filter((other) => other.id !== id)
    .map((other) => itemOfBody(other, { id: other.id, schoolId: 0, position: 0 }));
  return [...faults, ...checkItem([...others, item], item).map(itemFaultSentence)];
}

/** The first item and period that are no part yet: the item of the last part goes on to its next period. It is to weigh what is left of 100. */
export function nextPart({ name, parts }: ItemBody, reply: ReportItemsReply): PartBody | undefined {
  const last = parts.at(-1)?.itemId;
  const items = reply.items.filter((each) => each.name !== name);
  return items
    .toSorted((a, b) => Number(b.id === last) - Number(a.id === last))
    .flatMap(({ id, periodKind }) =>
      Array.from({ length: reply.periods.find(({ kind }) => kind === periodKind)?.names.length ?? 1 }, (_each, at) => ({
        itemId: id,
        ordinal: at + 1,
        weight: restOf(parts),
      })),
    )
    .find((each) => !parts.some(({ itemId, ordinal }) => itemId === each.itemId && ordinal === each.ordinal));
}

/** What is left of 100, as the weight of the next part. */
function restOf(parts: readonly PartBody[]): string {
  const rest = 100 - parts.reduce((sum, { weight }) => sum + (Number(weight) || 0), 0);
  return rest > 0 ? String(Math.round(rest * 100) / 100) : '0';
}
