import { dayOrThrow } from '#core/calendar';
import type { AuditReply, FindingReply } from '#contract/audit';
import type { MarkBody, SheetListReply, SheetReply } from '#contract/posting';
import { changeOf, openPeriod, quarterGrade } from './sheets.js';
import type { TestClient } from './test-server.js';
import { auditNow } from './audit-now.js';

/** The label that the sheet's scale gives the percentage; enough for whole cut-offs. */
export function rightLabel(sheet: SheetReply, { percent }: MarkBody): string {
  return sheet.scales[0]!.bands.find(({ lowest }) => Number(lowest) <= Number(percent) + 0.05)!.label;
}

/** What an audit found that keeps a period from being sealed. */
export function blockingOf({ rules, run }: AuditReply): readonly FindingReply[] {
  const blocking = new Set(rules.filter(({ severity }) => severity === 'blocks').map(({ id }) => id));
  return run!.findings.filter(({ ruleId }) => blocking.has(ruleId));
}

/**
 * Makes the open period ready for its last audit: posts 75 for every blank, and what each finding that blocks asks for.
 * @param later lets time pass before each save
 */
export async function settlePeriod(registrar: TestClient, later: () => void = () => undefined): Promise<void> {
  const pathOf = (section: number) => `/grade-sheets/${section}/${quarterGrade}/${openPeriod}`;
  const sheetOf = async (section: number) => (await registrar.get<SheetReply>(pathOf(section))).body;
  const post = async (section: number, changes: readonly object[]) => {
    later();
    if ((await sheetOf(section)).signedOff) await registrar.send('DELETE', `${pathOf(section)}/sign-off`);
    const { status } = await registrar.send('PUT', pathOf(section), { changes });
    if (status !== 200) throw new Error(`section ${section} answers ${status}`);
  };
  const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`);
  for (const { sectionId } of lists[0]!.sheets.filter(({ posted, expected }) => posted < expected)) {
    const { rows } = await sheetOf(sectionId);
    const blank = rows.filter(
      ({ withdrawnOn, mark }) => withdrawnOn === null && (mark.percent ?? mark.label ?? mark.code) === null,
    );
    await post(
      sectionId,
      blank.map((row) => changeOf(row, { percent: '75', label: 'C' })),
    );
  }
  const { body } = await auditNow(registrar, openPeriod);
  for (const { ruleId, openSectionId, enrollmentId } of blockingOf(body)) {
    const sheet = await sheetOf(openSectionId!);
    const row = sheet.rows.find((each) => each.enrollmentId === enrollmentId)!;
    await post(openSectionId!, [changeOf(row, mendedBy(ruleId, sheet, row.mark))]);
  }
}

function mendedBy(ruleId: string, sheet: SheetReply, mark: MarkBody): Partial<MarkBody> {
  switch (ruleId) {
    case 'grade-on-withdrawn-student':
      return { percent: null, label: null };
    case 'code-with-percent':
      return { percent: null };
    case 'last-date-needed':
      // Who never attended has the first day of the period.
      return { lastDate: mark.code === 'NVA' ? sheet.period.startsOn : dayOrThrow('2026-01-16') };
    default:
      return { label: rightLabel(sheet, mark) };
  }
}

/** Audits the period and closes its audit with a certificate. */
export async function certify(registrar: TestClient, periodId: number = openPeriod): Promise<AuditReply> {
  await auditNow(registrar, periodId);
  const { status, body } = await registrar.send<AuditReply>('POST', '/audit/certificates', { periodId, note: '' });
  if (status !== 200) throw new Error(`the certificate answers ${status}: ${JSON.stringify(body)}`);
  return body;
}
