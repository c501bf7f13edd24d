import type { OpenZip } from '../open-zip.js';
import { readXml, type XmlReader } from './read-xml.js';

/** The texts that the cells of a workbook share, in the order in which they refer to them. */
export async function readStrings(zip: OpenZip, path: string | undefined): Promise<readonly string[]> {
  const pieces = path === undefined ? undefined : await zip.open(path);
  if (!pieces) return [];
  const strings: string[] = [];
  const rich = richText();
  await readXml(pieces, {
    open: rich.open,
    text: rich.text,
    close(name) {
      rich.close(name);
      if (name === 'si') strings.push(rich.take());
    },
  });
  return strings;
}

/** Gathers the text of an element that may be written in runs of several looks; how it is read aloud is passed over. */
export function richText(): Required<XmlReader> & { take(): string } {
  let gathered = '';
  let isText = false;
  let isPhonetic = false;
  return {
    open(name) {
      if (name === 't') isText = true;
      if (name === 'rPh') isPhonetic = true;
    },
    text(text) {
      if (isText && !isPhonetic) gathered += text;
    },
    close(name) {
      if (name === 't') isText = false;
      if (name === 'rPh') isPhonetic = false;
    },
    take() {
      const taken = unescaped(gathered);
      gathered = '';
      return taken;
    },
  };
}

/** Signs that XML cannot hold stand as `_x000D_` (ECMA-376, part 1, 22.9.2.19). */
export function unescaped(text: string): string {
  return text.replaceAll(/_x([\dA-F]{4})_/gi, (_all, code: string) => String.fromCharCode(parseInt(code, 16)));
}
