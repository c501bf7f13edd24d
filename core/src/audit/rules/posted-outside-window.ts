import { isBlank } from '#core/posting';
import { findingOn, type AuditRule } from '../audit-rule.js';
import type { ItemFact } from '../snapshot.js';

export const postedOutsideWindow: AuditRule = {
  id: 'posted-outside-window',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'warns',
  summary: 'Posted outside the window',
  why: 'A grade that came before the window opened or after it closed was seen by nobody who waited for the window.',
  messages: {
    before: 'Posted on {postedAt}, before the window opened on {opensAt}.',
    after: 'Posted on {postedAt}, after the window closed on {closesAt}.',
  },

  *check({ grades }) {
    const edgesOf = new Map<Window, Edges>();
    for (const grade of grades) {
      const { postedAt, mark, item } = grade;
      if (postedAt === null || item.window === null || isBlank(mark)) continue;
      const { opensAt, closesAt } = item.window;
      let edges = edgesOf.get(item.window);
      if (!edges) edgesOf.set(item.window, (edges = readEdges(item.window)));
      const at = Date.parse(postedAt);
      const side = at < edges.first ? 'before' : at > edges.last ? 'after' : null;
      if (side === null) continue;
      const data = { postedAt: postedAt.slice(0, 10), opensAt: opensAt.slice(0, 10), closesAt: closesAt.slice(0, 10) };
      yield findingOn(grade, side, data);
    }
  },
};

type Window = NonNullable<ItemFact['window']>;

/** When something may be posted, in milliseconds: read once for all grades of an item, as reading takes longer than comparing. */
interface Edges {
  readonly first: number;
  readonly last: number;
}

function readEdges({ opensAt, closesAt, graceUntil }: Window): Edges {
  return { first: Date.parse(opensAt), last: Date.parse(graceUntil ?? closesAt) };
}
