/** A value of a row that is written as text. */
export type CopyValue = string | number | null;

/** A row in PostgreSQL's text format, with its line end. Source: PostgreSQL 15 documentation, COPY, Text Format. */
export function copyLine(values: readonly CopyValue[]): string {
  return `${values.map(writeValue).join('\t')}\n`;
}

/** The rows of such a text, which ends with a line end; no text holds no row. */
export function readCopyLines(text: string): (string | null)[][] {
  return text === ''
    ? []
    : text
        .slice(0, -1)
        .split('\n')
        .map((line) => line.split('\t').map(readValue));
}

const written: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
const read: Readonly<Record<string, string>> = { t: '\t', n: '\n', r: '\r', b: '\b', f: '\f', v: '\v' };

function writeValue(value: CopyValue): string {
  if (value === null) return '\\N';
  if (typeof value === 'number' || !/[\\\t\n\r]/.test(value)) return String(value);
  return value.replace(/[\\\t\n\r]/g, (sign) => written[sign]!);
}

function readValue(text: string): string | null {
  if (text === '\\N') return null;
  return text.includes('\\') ? text.replace(/\\(.)/g, (_all, sign: string) => read[sign] ?? sign) : text;
}
