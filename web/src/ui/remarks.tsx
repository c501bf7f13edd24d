import type { Severity } from '#core/audit';
import { SeverityDiamond } from './state-marks';

/** What rules say of a row, within it. */
export function Remarks({
  remarks,
}: {
  readonly remarks: readonly { readonly severity: Severity; readonly says: string }[];
}) {
  if (remarks.length === 0) return null;
  return (
    <span
      title={remarks.map(({ says }) => says).join(' ')}
      className="line-clamp-2 text-[12px] leading-[14px] whitespace-normal text-quiet"
    >
      {remarks.map(({ severity, says }) => (
        <span key={says} className="mr-1.5">
          <SeverityDiamond severity={severity} /> {says}
        </span>
      ))}
    </span>
  );
}
