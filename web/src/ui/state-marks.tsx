import { Lock } from 'lucide-react';
import type { Severity } from '#core/audit';

interface FillDiscProps {
  readonly done: number;
  readonly of: number;
  readonly isSealed?: boolean;
  readonly isSignedOff?: boolean;
}

/** How far something is, as a disc that fills; with a tick once signed off, a lock once sealed. Says it in words too. */
export function FillDisc({ done, of, isSealed = false, isSignedOff = false }: FillDiscProps) {
  if (isSealed)
    return <Lock size={13} className="inline-block align-middle text-eucalypt" role="img" aria-label="sealed" />;
  const share = of === 0 ? 0 : done / of;
  const angle = share * 2 * Math.PI;
  const [x, y] = [8 + 6 * Math.sin(angle), 8 - 6 * Math.cos(angle)];
  return (
    <svg
      width="14"
      height="14"
      viewBox="0 0 16 16"
      role="img"
      aria-label={isSignedOff ? `${done} of ${of}, signed off` : `${done} of ${of}`}
      className="inline-block align-middle text-eucalypt"
    >
      <circle
        cx="8"
        cy="8"
        r="6.5"
        fill={isSignedOff || share >= 1 ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="1.5"
      />
      {isSignedOff && <path d="M4.6 8.3 7 10.6 11.4 5.8" fill="none" stroke="var(--surface)" strokeWidth="1.8" />}
      {!isSignedOff && share > 0 && share < 1 && (
        <path d={`M8 8V2A6 6 0 ${share > 0.5 ? 1 : 0} 1 ${x} ${y}Z`} fill="currentColor" />
      )}
    </svg>
  );
}

const severityWords: Record<Severity, string> = {
  blocks: 'blocks the seal',
  warns: 'warns',
  informs: 'for information',
};
const severityInk: Record<Severity, string> = {
  blocks: 'text-waratah',
  warns: 'text-wattle-fill',
  informs: 'text-estuary',
};

/** A diamond: solid blocks, half warns, hollow informs. */
export function SeverityDiamond({ severity }: { severity: Severity }) {
  return (
    <svg
      width="12"
      height="12"
      viewBox="0 0 12 12"
      role="img"
      aria-label={severityWords[severity]}
      className={`inline-block shrink-0 align-middle ${severityInk[severity]}`}
    >
      <path
        d="M6 .8 11.2 6 6 11.2.8 6Z"
        fill={severity === 'blocks' ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="1.3"
      />
      {severity === 'warns' && <path d="M6 .8V11.2L.8 6Z" fill="currentColor" />}
    </svg>
  );
}

/** A filled square: a rule put it there. An outlined one: an exception did. Half of either: it would change. */
export function RuleSquare({
  label,
  look = 'rule',
}: {
  label: string;
  look?: 'rule' | 'exception' | 'omitted' | 'added' | 'removed';
}) {
  const looks = {
    rule: 'bg-eucalypt border-eucalypt',
    exception: 'border-2 border-eucalypt',
    omitted:
      'border border-control bg-[linear-gradient(135deg,transparent_44%,var(--control)_44%_56%,transparent_56%)]',
    added: 'border-wattle-fill bg-wattle-fill',
    removed: 'border-waratah border-dashed',
  };
  return (
    <span
      role="img"
      aria-label={label}
      title={label}
      className={`inline-block size-3 rounded-[2px] border-[1.5px] align-middle ${looks[look]}`}
    />
  );
}
