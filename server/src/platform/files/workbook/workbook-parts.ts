import type { OpenZip } from '../open-zip.js';
import { readXml } from './read-xml.js';

export interface SheetName {
  readonly name: string;
  readonly isHidden: boolean;
}

/** Where the parts of a workbook stand in its zip (ECMA-376, part 2, 9.3; part 1, 12.3). */
export interface WorkbookParts {
  /** All sheets that hold cells, in their order. */
  readonly sheets: readonly SheetName[];
  /** The one that is read: its name and its part. Without a name asked for it is the first that is not hidden. */
  readonly name: string;
  readonly sheet: string;
  readonly strings: string | undefined;
  readonly styles: string | undefined;
  /** Whether days are counted from 1904. */
  readonly is1904: boolean;
}

/** @throws Error where the zip holds no workbook, one that only shows charts, or no sheet of the name */
export async function findPartsOrThrow(zip: OpenZip, asked: string | null): Promise<WorkbookParts> {
  const book = [...(await relationsOf(zip, '')).values()].find(({ type }) => type === 'officeDocument')?.path;
  const pieces = book === undefined ? undefined : await zip.open(book);
  if (book === undefined || pieces === undefined) throw new Error('no workbook');
  const relations = await relationsOf(zip, book);
  let is1904 = false;
  const all: (SheetName & { readonly id: string })[] = [];
  await readXml(pieces, {
    open(name, attributes) {
      if (name === 'workbookPr') is1904 = isTrue(attributes['date1904']);
      if (name === 'sheet')
        all.push({
          id: attributes['id']!,
          name: attributes['name'] ?? '',
          isHidden: (attributes['state'] ?? 'visible') !== 'visible',
        });
    },
  });
  const sheets = all.filter(({ id }) => relations.get(id)?.type === 'worksheet');
  const read = sheets.find(({ name, isHidden }) => (asked === null ? !isHidden : name === asked));
  const sheet = read && relations.get(read.id);
  if (!sheet) throw new Error('no sheet');
  const partOf = (type: string) => [...relations.values()].find((each) => each.type === type)?.path;
  return {
    sheets: sheets.map(({ name, isHidden }) => ({ name, isHidden })),
    name: read.name,
    sheet: sheet.path,
    strings: partOf('sharedStrings'),
    styles: partOf('styles'),
    is1904,
  };
}

interface Relation {
  readonly type: string;
  readonly path: string;
}

/** The parts that a part refers to, by the ids it uses for them. */
async function relationsOf(zip: OpenZip, part: string): Promise<ReadonlyMap<string, Relation>> {
  const slash = part.lastIndexOf('/') + 1;
  const pieces = await zip.open(`${part.slice(0, slash)}_rels/${part.slice(slash)}.rels`);
  const relations = new Map<string, Relation>();
  if (!pieces) return relations;
  await readXml(pieces, {
    open(name, { Id, Type = '', Target = '' }) {
      if (name !== 'Relationship') return;
      const path = new URL(Target, `zip:/${part}`).pathname.slice(1);
      relations.set(Id!, { type: Type.slice(Type.lastIndexOf('/') + 1), path: decodeURIComponent(path) });
    },
  });
  return relations;
}

export function isTrue(value: string | undefined): boolean {
  return value === '1' || value === 'true';
}
