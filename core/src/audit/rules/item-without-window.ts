import { nowhere, type AuditRule } from '../audit-rule.js';

export const itemWithoutWindow: AuditRule = {
  id: 'item-without-window',
  version: 1,
  family: 'completeness',
  scope: 'item',
  severity: 'warns',
  summary: 'Item expected and never opened',
  why: 'Without a posting window no teacher can post the item, and nobody is told that it is due.',
  messages: {
    closed: 'No window was set in which {item} may be posted; sections that report it: {sections}.',
  },

  *check({ sections }) {
    const found = new Map<number, { readonly name: string; count: number }>();
    for (const { sheets } of sections) {
      for (const { item } of sheets) {
        if (item.window) continue;
        const own = found.get(item.id) ?? { name: item.name, count: 0 };
        own.count++;
        found.set(item.id, own);
      }
    }
    for (const [itemId, { name, count }] of found)
      yield { ...nowhere, itemId, message: 'closed', data: { item: name, sections: String(count) } };
  },
};
