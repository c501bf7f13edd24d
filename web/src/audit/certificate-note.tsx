import { Download } from 'lucide-react';
import { brokenInWords, type CertificateReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { showInstant } from '../ui/format';

/** Whether the audit of the period is closed, by whom, and what its certificate no longer rests on. */
export function CertificateNote({
  certificate,
  periodId,
}: {
  readonly certificate: CertificateReply;
  readonly periodId: number;
}) {
  const { by, at, grades, waivers, broken } = certificate;
  const link = 'inline-flex items-center gap-1 font-semibold text-eucalypt hover:underline';
  return (
    <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {broken.length === 0 ? (
        <span>
          <b className="text-eucalypt">Certified</b> {showInstant(at)} by {by}: {counted(grades, 'grade')}
          {waivers > 0 && `, ${counted(waivers, 'waiver')}`}.
        </span>
      ) : (
        <span>
          <b className="text-waratah">The certificate of {showInstant(at)} no longer holds:</b> {brokenInWords(broken)}.
        </span>
      )}
      <a className={link} href={`/api/audit/certificate?period=${periodId}`}>
        <Download size={14} aria-hidden /> PDF
      </a>
      {broken.length === 0 && (
        <a className={link} href={`/api/audit/grades-file?period=${periodId}`}>
          <Download size={14} aria-hidden /> Audited grades
        </a>
      )}
    </span>
  );
}
