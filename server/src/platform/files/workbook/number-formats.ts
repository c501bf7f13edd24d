import type { OpenZip } from '../open-zip.js';
import { readXml } from './read-xml.js';

/** How the number of a cell is shown. */
export type NumberKind = 'number' | 'percent' | 'day' | 'time';

/** Formats that a workbook does not spell out (ECMA-376, part 1, 18.8.30): 9 and 10 are percents. */
const builtIn = new Map<number, NumberKind>([
  ...[9, 10].map((id) => [id, 'percent'] as const),
  ...[14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 34, 35, 36, 50, 51, 52, 53, 54, 55, 56, 57, 58].map(
    (id) => [id, 'day'] as const,
  ),
  ...[18, 19, 20, 21, 32, 33, 45, 46, 47].map((id) => [id, 'time'] as const),
]);

/** The kind of each style of a workbook, in the order in which cells refer to them. */
export async function readNumberKinds(zip: OpenZip, styles: string | undefined): Promise<readonly NumberKind[]> {
  const pieces = styles === undefined ? undefined : await zip.open(styles);
  if (!pieces) return [];
  const own = new Map<number, NumberKind>();
  const kinds: NumberKind[] = [];
  let isInside = false;
  await readXml(pieces, {
    open(name, { numFmtId, formatCode = '' }) {
      if (name === 'numFmt') own.set(Number(numFmtId), kindOfFormat(formatCode));
      if (name === 'cellXfs') isInside = true;
      if (name === 'xf' && isInside) kinds.push(own.get(Number(numFmtId)) ?? builtIn.get(Number(numFmtId)) ?? 'number');
    },
    close(name) {
      if (name === 'cellXfs') isInside = false;
    },
  });
  return kinds;
}

/**
 * What a format shows. Texts in quotation marks, escaped signs, colours and conditions of it show nothing of the number.
 *
 * @example kindOfFormat('0.0%') // 'percent'
 * @example kindOfFormat('dd/mm/yyyy') // 'day'
 * @example kindOfFormat('[Red]0.00" days"') // 'number'
 */
export function kindOfFormat(format: string): NumberKind {
  const [shown = ''] = format
    .replaceAll(/"[^"]*"|\\.|_.|\*./g, '')
    .replaceAll(/\[(?!h+\]|m+\]|s+\])[^\]]*\]/gi, '')
    .split(';');
  if (shown.includes('%')) return 'percent';
  if (/[yd]/i.test(shown)) return 'day';
  if (/[hs]/i.test(shown)) return 'time';
  return /m/i.test(shown) ? 'day' : 'number';
}
