import { agreeing, counted, listed } from '#contract/messages';
import { Awaited } from '../shell/awaited';
import { openDrawer } from '../shell/drawer-store';
import { Strong } from '../ui/page';
import { CertificateNote } from './certificate-note';
import { useCourseCertificates } from './queries';

/** How many certificates of chosen courses there are, and whether they hold; nothing where there is none. */
export function CourseCertificatesNote({ periodId }: { readonly periodId: number }) {
  const { data } = useCourseCertificates(periodId);
  if (!data || data.certificates.length === 0) return null;
  const broken = data.certificates.filter((each) => each.broken.length > 0).length;
  const all = data.certificates.length;
  return (
    <span className="block">
      {counted(all, 'certificate')} of chosen courses
      {broken > 0 && (
        <>
          , of which{' '}
          <Strong tone="blocks">
            {broken} no longer {agreeing(broken, 'holds')}
          </Strong>
        </>
      )}
      .{' '}
      <button
        type="button"
        className="min-h-6 font-semibold text-eucalypt hover:underline"
        onClick={() => openDrawer('Certificates of chosen courses', <CourseCertificates periodId={periodId} />)}
      >
        Look at {all === 1 ? 'it' : 'them'}
      </button>
    </span>
  );
}

/** Each certificate of chosen courses, the newest first. */
export function CourseCertificates({ periodId }: { readonly periodId: number }) {
  const read = useCourseCertificates(periodId);
  return (
    <Awaited query={read} waiting="Looking at the certificates">
      {({ certificates }) => (
        <ul>
          {certificates.map((certificate) => (
            <li key={certificate.id} className="border-b border-hairline py-2 text-[13px]">
              <p className="font-semibold">{listed(certificate.courses)}</p>
              <CertificateNote certificate={certificate} periodId={periodId} />
              {certificate.note && <p className="text-quiet">“{certificate.note}”</p>}
            </li>
          ))}
        </ul>
      )}
    </Awaited>
  );
}
