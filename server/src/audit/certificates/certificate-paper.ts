import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { brokenInWords, type CertificateReply } from '#contract/audit';
import { counted, listed } from '#contract/messages';
import type { Certificate } from './certificates.repository.js';

const fonts = join(dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')), 'build/fonts/Roboto');
pdfmake.setFonts({
  Roboto: {
    normal: join(fonts, 'Roboto-Regular.ttf'),
    bold: join(fonts, 'Roboto-Medium.ttf'),
    italics: join(fonts, 'Roboto-Italic.ttf'),
    bolditalics: join(fonts, 'Roboto-MediumItalic.ttf'),
  },
});

/** What the paper is headed with. */
export interface PaperPlace {
  readonly school: string;
  readonly period: string;
  /** How an instant is written for the reader. */
  readonly at: (instant: string) => string;
}

const effects = { blocks: 'blocks sealing', warns: 'warns', informs: 'for information', off: 'switched off' } as const;
const quiet = '#59636b';

/** The certificate as a PDF: what was checked, by which rules, what was let stand and why, and how the grades are known again. */
export function certificatePaper(
  { facts, issuedByName, issuedAt, note, gradesHash, id }: Certificate,
  broken: CertificateReply['broken'],
  { school, period, at }: PaperPlace,
): Promise<Buffer> {
  const off = facts.rules.filter(({ severity }) => severity === 'off');
  const found = facts.rules.reduce((sum, rule) => sum + rule.found, 0);
  const paper: TDocumentDefinitions = {
    info: { title: `Certificate of audit, ${period}` },
    pageMargins: [48, 48, 48, 56],
    defaultStyle: { font: 'Roboto', fontSize: 9.5, lineHeight: 1.2 },
    footer: (page, pages) => ({
      text: `${school} · ${period} · certificate ${id} · page ${page} of ${pages}`,
      margin: [48, 16, 48, 0],
      fontSize: 8,
      color: quiet,
    }),
    content: [
      { text: 'Certificate of audit', fontSize: 20, bold: true },
      { text: `${school}, ${period}`, fontSize: 13, margin: [0, 2, 0, 10] },
      ...(broken.length > 0 ? [brokenNote(broken)] : []),
      {
        text: [
          facts.courses.length === 0
            ? 'Every grade of the period was checked by the rules below. '
            : 'Every grade that these courses have in the period was checked by the rules below. ',
          `No finding that blocks sealing is left, but for those that were let stand: ${counted(facts.grades, 'grade')}, `,
          `${counted(found, 'finding')}, ${counted(facts.waivers.length, 'waiver')}.`,
        ],
      },
      {
        margin: [0, 10, 0, 0],
        layout: 'noBorders',
        table: {
          body: [
            ...(facts.courses.length === 0 ? [] : [['Courses', { text: listed(facts.courses), bold: true }]]),
            ['Issued by', { text: issuedByName, bold: true }],
            ['Issued', at(issuedAt.toISOString())],
            ['Audited', at(facts.runAt)],
            ...(note === '' ? [] : [['Note', note]]),
          ],
        },
      },
      ...(off.length === 0 ? [] : [offNote(off)]),
      heading('What was let stand'),
      facts.waivers.length === 0 ? 'Nothing.' : waiverTable(facts.waivers, at),
      heading('Who was told'),
      facts.told.length === 0 ? 'Nobody.' : toldTable(facts.told, at),
      heading('By which rules'),
      ruleTable(facts.rules),
      heading('The grades'),
      {
        text: [
          'The file of the audited grades has this SHA-256; any program that computes one tells whether a file is the same:\n',
          { text: gradesHash, bold: true },
        ],
      },
    ],
  };
  return pdfmake.createPdf(paper).getBuffer();
}

function brokenNote(broken: CertificateReply['broken']): Content {
  const says = `This certificate no longer holds: ${brokenInWords(broken)} since it was issued.`;
  return { text: says, bold: true, color: '#a3182f', margin: [0, 0, 0, 10] };
}

function offNote(off: Certificate['facts']['rules']): Content {
  const names = off.map(({ summary }) => summary).join('; ');
  return {
    text: `Not looked at, as switched off (${counted(off.length, 'rule')}): ${names}.`,
    bold: true,
    margin: [0, 10, 0, 0],
  };
}

const heading = (text: string): Content => ({ text, fontSize: 12, bold: true, margin: [0, 16, 0, 4] });

function waiverTable(waivers: Certificate['facts']['waivers'], at: PaperPlace['at']): Content {
  const rows = waivers.map(({ summary, subject, sentence, reason, until, by, at: when }) => [
    { text: [{ text: `${subject}\n`, bold: true }, `${summary}. ${sentence}`] },
    { text: [`“${reason}”\n`, { text: `${by}, ${at(when)}${until ? `, until ${until}` : ''}`, color: quiet }] },
  ]);
  return lined(['About, and what was found', 'Why it stands'], ['55%', '45%'], rows);
}

function toldTable(told: Certificate['facts']['told'], at: PaperPlace['at']): Content {
  const rows = told.map(({ to, findings, at: when }) => [to, right(String(findings)), at(when)]);
  return lined(['Teacher', right('Findings'), 'Last told'], ['*', 60, 150], rows);
}

function ruleTable(rules: Certificate['facts']['rules']): Content {
  const rows = rules.map(({ id, version, summary, severity, threshold, leftAlone, found, waived }) => [
    {
      text: [
        `${summary}\n`,
        {
          text: [
            `${id}, version ${version}`,
            ...(threshold === null ? [] : [`begins at ${threshold}`]),
            ...(leftAlone.length === 0 ? [] : [`not looked at in ${listed(leftAlone)}`]),
          ].join('; '),
          fontSize: 8,
          color: quiet,
        },
      ],
    },
    effects[severity],
    right(String(found)),
    right(String(waived)),
  ]);
  return lined(['Rule', 'Severity', right('Found'), right('Let stand')], ['*', 90, 45, 55], rows);
}

const right = (text: string): Content => ({ text, alignment: 'right' });

/** A table with thin lines between its rows, its head on every page. */
function lined(head: readonly Content[], widths: (string | number)[], rows: Content[][]): Content {
  return {
    layout: 'lightHorizontalLines',
    table: {
      headerRows: 1,
      widths,
      dontBreakRows: true,
      body: [head.map((cell) => ({ text: cell, bold: true })), ...rows],
    },
  };
}
