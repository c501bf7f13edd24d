import { formatAtLeast } from '#core/numbers';
import { cutBands, orderBands, type Band } from '#core/scales';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const scaleWithGap: AuditRule = {
  id: 'scale-with-gap',
  version: 1,
  family: 'set-up',
  scope: 'sheet',
  settledIn: 'scales',
  severity: 'warns',
  summary: 'Scale with a gap',
  why: 'A percentage that falls into a gap has no label, and one in an unreachable band never gets it.',
  messages: {
    bottom: '{scale} begins at {lowest}: below it there is no label.',
    twice: '{scale} has two labels that begin at {lowest}.',
    open: '{scale} has a label ({label}) without a cut-off.',
  },

  *check(snapshot) {
    const told = new Set<string>();
    // One finding for each scale of an item, on the sheet with the lowest number.
    const sheets = sheetsOf(snapshot).toSorted((a, b) => a.section.id - b.section.id || a.item.id - b.item.id);
    for (const sheet of sheets) {
      const { scale, item } = sheet;
      if (scale?.kind !== 'percent' || told.has(`${item.id}/${scale.name}`)) continue;
      const gap = gapOf(scale.bands.filter(({ isOff }) => !isOff));
      if (!gap) continue;
      told.add(`${item.id}/${scale.name}`);
      yield findingOnSheet(sheet, gap.message, { scale: scale.name, ...gap.data });
    }
  },
};

function gapOf(
  bands: readonly Band[],
): { readonly message: string; readonly data: Record<string, string> } | undefined {
  const open = bands.find(({ lowest }) => lowest === null);
  if (open) return { message: 'open', data: { label: open.label } };
  const ordered = orderBands(cutBands(bands));
  const cutOffs = ordered.map(({ lowest }) => formatAtLeast(lowest, 0));
  const twice = cutOffs.find((each, at) => cutOffs.indexOf(each) < at);
  if (twice !== undefined) return { message: 'twice', data: { lowest: twice } };
  const bottom = ordered.at(-1);
  if (bottom && bottom.lowest.units > 0n) return { message: 'bottom', data: { lowest: cutOffs.at(-1)! } };
  return undefined;
}
