import iconv from 'iconv-lite';
import Papa from 'papaparse';
import type { District, EnrollmentRow, SectionRow } from './district.js';
import { fileSections, openPeriodId } from './draw-grades.js';
import { exportedPercent, groupBySection, type CalculatedPercents } from './draw-scores.js';

/** An export of a learning platform, as it lies in demo/files. */
export interface PlatformFile {
  readonly name: string;
  readonly bytes: Buffer;
}

interface Line {
  readonly familyName: string;
  readonly givenName: string;
  readonly sourcedId: string;
  readonly email: string;
  readonly percent: string;
}

/**
 * Exports of different layout for the three sections that wait for them; the third has a fault of every kind, the last
 * holds all three sections with their exams.
 */
export function platformFiles(district: District, percents: CalculatedPercents): PlatformFile[] {
  const [tidal, harbour, boats] = fileSections(district).map((section) => linesOf(district, section, percents));
  return [
    { name: 'tidal-ecology-1.csv', bytes: plainExport(tidal!) },
    { name: 'harbour-history-2.csv', bytes: titledExport(harbour!) },
    { name: 'boatbuilding-1-with-faults.csv', bytes: faultyExport(boats!, tidal!) },
    {
      name: 'three-sections-with-exams.csv',
      bytes: wholeExport([
        ['Tidal Ecology 1', tidal!],
        ['Harbour History 2', harbour!],
        ['Boats, first group', boats!],
      ]),
    },
  ];
}

/** A plain table with commas, the number in the first column. */
function plainExport(lines: readonly Line[]): Buffer {
  const rows = lines.map(({ sourcedId, familyName, givenName, percent }) => [
    sourcedId,
    `${familyName}, ${givenName}`,
    percent,
  ]);
  return Buffer.from(Papa.unparse([['Student number', 'Name', 'Course total (%)'], ...rows]) + '\r\n');
}

/** Title lines first, semicolons, decimal commas and percent signs, people by their e-mail; UTF-8 with a mark. */
function titledExport(lines: readonly Line[]): Buffer {
  const rows = lines.map(({ email, familyName, givenName, percent }) => [
    givenName,
    familyName,
    email,
    `${percent.replace('.', ',').slice(0, -2)} %`,
  ]);
  const table = [
    ['Harbour History 2'],
    ['Made on 20 January 2026'],
    [],
    ['Given name', 'Family name', 'E-mail', 'Overall'],
    ...rows,
  ];
  return Buffer.concat([
    Buffer.from([0xef, 0xbb, 0xbf]),
    Buffer.from(Papa.unparse(table, { delimiter: ';' }) + '\r\n'),
  ]);
}

/** UTF-16 with tabs, a remark with line breaks, and rows that cannot be taken. */
function faultyExport(lines: readonly Line[], elsewhere: readonly Line[]): Buffer {
  const row = ({ sourcedId, familyName, givenName }: Line, total: string, remark = '') => [
    `${givenName} ${familyName}`,
    sourcedId,
    remark,
    total,
  ];
  const rows = lines.map((line, index) => {
    if (index === 1) return row(line, `${line.percent}00000000001`);
    if (index === 2) return row(line, '860', 'typed without the point');
    if (index === 3) return row(line, 'abc');
    if (index === 4) return row(line, '');
    if (index === 5) return row(line, '-3.5');
    return row(line, line.percent, index === 6 ? 'absent in week 3\nwork handed in late' : '');
  });
  const unknown = ['Somebody Else', 'S99999', 'joined last week', '77.5'];
  const table = [
    ['Student', 'Identifier', 'Remark', 'Final result'],
    ...rows,
    row(lines[0]!, '61.25'),
    unknown,
    row(elsewhere[0]!, '88.1'),
  ];
  return Buffer.concat([
    Buffer.from([0xff, 0xfe]),
    iconv.encode(Papa.unparse(table, { delimiter: '\t' }) + '\r\n', 'utf-16le'),
  ]);
}

/** Several sections in one table, one of them by a name of the platform's own; an exam beside the total, and a code. */
function wholeExport(sections: readonly (readonly [name: string, lines: readonly Line[]])[]): Buffer {
  const rows = sections.flatMap(([name, lines]) =>
    lines.map(({ sourcedId, familyName, givenName, percent }, index) => [
      sourcedId,
      `${familyName}, ${givenName}`,
      name,
      percent,
      index === 4 ? 'INC' : String(58 + ((index * 17) % 41)),
    ]),
  );
  const header = ['Student number', 'Name', 'Group', 'Total (%)', 'Exam (%)'];
  return Buffer.from(Papa.unparse([header, ...rows]) + '\r\n');
}

function linesOf(district: District, section: SectionRow, percents: CalculatedPercents): Line[] {
  const enrollments = groupBySection(district).get(section.id)!;
  return enrollments.flatMap((enrollment: EnrollmentRow) => {
    const percent = percents.get(`${enrollment.id}/${openPeriodId}`);
    const { familyName, givenName, sourcedId, email } = district.people.find(({ id }) => id === enrollment.studentId)!;
    if (percent === undefined) return [];
    return [{ familyName, givenName, sourcedId, email, percent: exportedPercent(percent) }];
  });
}
