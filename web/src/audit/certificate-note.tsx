import { Download } from 'lucide-react';
import { brokenInWords, type CertificateReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { showInstant } from '../ui/format';

/** Whether the audit of the period, or of some of its courses, is closed, by whom, and what its certificate no longer rests on. */
export function CertificateNote({
  certificate,
  periodId,
}: {
  readonly certificate: CertificateReply;
  readonly periodId: number;
}) {
  const { id, courses, by, at, grades, waivers, broken } = certificate;
  // The last one of all of the school is handed out where none is named.
  const which = `period=${periodId}${courses.length > 0 ? `&id=${id}` : ''}`;
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
      <a className={link} href={`/api/audit/certificate?${which}`}>
        <Download size={14} aria-hidden /> PDF
      </a>
      {broken.length === 0 && (
        <a className={link} href={`/api/audit/grades-file?${which}`}>
          <Download size={14} aria-hidden /> Audited grades
        </a>
      )}
    </span>
  );
}
