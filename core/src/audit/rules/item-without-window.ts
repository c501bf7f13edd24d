import { nowhere, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';

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

  ...judgedTogether<{ readonly id: number; readonly name: string }>({
    *gather({ sections }) {
      for (const { sheets } of sections)
        for (const { item } of sheets) if (!item.window) yield { id: item.id, name: item.name };
    },
    *conclude(unopened) {
      const names = new Map(unopened.map(({ id, name }) => [id, name]));
      for (const [itemId, item] of names) {
        const sections = unopened.filter(({ id }) => id === itemId).length;
        yield { ...nowhere, itemId, message: 'closed', data: { item, sections: String(sections) } };
      }
    },
  }),
};
