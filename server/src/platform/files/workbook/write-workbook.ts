import { strToU8, zipSync } from 'fflate';
import { columnLetters } from './cell-address.js';

type Rows = readonly (readonly string[])[];

const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const packages = 'http://schemas.openxmlformats.org/package/2006';
const kind = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
const [narrowest, widest] = [8, 48];

/**
 * A workbook (ECMA-376) of one sheet of texts, with a bold head that stays in sight. The same rows give the same bytes.
 *
 * @param sheetName at most 31 characters, none of `[]:*?/\`
 */
export function writeWorkbook(sheetName: string, rows: Rows): Buffer {
  const parts: Record<string, string> = {
    '[Content_Types].xml': `<Types xmlns="${packages}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${kind}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${kind}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${kind}.styles+xml"/></Types>`,
    '_rels/.rels': relations([['officeDocument', 'xl/workbook.xml']]),
    'xl/workbook.xml': `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="${escaped(sheetName)}" sheetId="1" r:id="r1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': relations([
      ['worksheet', 'worksheets/sheet1.xml'],
      ['styles', 'styles.xml'],
    ]),
    'xl/styles.xml': styles,
    'xl/worksheets/sheet1.xml': sheetOf(rows),
  };
  const files = Object.fromEntries(Object.entries(parts).map(([path, xml]) => [path, strToU8(head + xml)]));
  return Buffer.from(zipSync(files, { mtime: new Date('2000-01-01T00:00:00Z') }));
}

const styles = `<styleSheet xmlns="${main}"><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/><xf numFmtId="0" fontId="1" fillId="0" borderId="0" xfId="0" applyFont="1"/></cellXfs></styleSheet>`;

function relations(parts: readonly (readonly [string, string])[]): string {
  const each = parts.map(
    ([type, target], index) => `<Relationship Id="r${index + 1}" Type="${office}/${type}" Target="${target}"/>`,
  );
  return `<Relationships xmlns="${packages}/relationships">${each.join('')}</Relationships>`;
}

function sheetOf(rows: Rows): string {
  const widths = (rows[0] ?? []).map((_heading, column) => {
    const longest = rows.reduce((length, row) => Math.max(length, (row[column] ?? '').length), 0);
    const width = Math.min(widest, Math.max(narrowest, longest + 2));
    return `<col min="${column + 1}" max="${column + 1}" width="${width}" customWidth="1"/>`;
  });
  const columns = widths.length === 0 ? '' : `<cols>${widths.join('')}</cols>`;
  const frozen = `<sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews>`;
  return `<worksheet xmlns="${main}">${frozen}${columns}<sheetData>${rows.map(rowOf).join('')}</sheetData></worksheet>`;
}

function rowOf(cells: readonly string[], index: number): string {
  const style = index === 0 ? ' s="1"' : '';
  const each = cells.map((text, column) =>
    text === ''
      ? ''
      : `<c r="${columnLetters(column + 1)}${index + 1}"${style} t="inlineStr"><is><t xml:space="preserve">${escaped(text)}</t></is></c>`,
  );
  return `<row r="${index + 1}">${each.join('')}</row>`;
}

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Signs that XML cannot hold are written as `_x0007_`; a text that looks like that is written so that it stays one. */
function escaped(text: string): string {
  return text
    .replaceAll(/_(?=x[\dA-F]{4}_)/gi, '_x005F_')
    .replaceAll(/[&<>"]/g, (sign) => entities[sign]!)
    .replaceAll(
      // oxlint-disable-next-line no-control-regex
      /[\0-\x08\x0B\x0C\x0D\x0E-\x1F\uFFFE\uFFFF]/g,
      (sign) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`,
    );
}
