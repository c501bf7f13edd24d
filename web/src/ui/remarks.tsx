import type { RuleRemark } from '#contract/audit';
import { SeverityDiamond } from './state-marks';

/** What rules say of a row, within it: each by its name, and what it says to whoever points at it or hears it. */
export function Remarks({ remarks }: { readonly remarks: readonly RuleRemark[] }) {
  if (remarks.length === 0) return null;
  return (
    <span className="line-clamp-2 text-[12px] leading-[15px] whitespace-normal text-quiet">
      {remarks.map(({ severity, rule, says }) => (
        <span key={rule} title={says} className="mr-1.5">
          <SeverityDiamond severity={severity} /> {rule}
          <span className="sr-only">: {says}</span>
        </span>
      ))}
    </span>
  );
}

/** The same in full, where there is room. */
export function RemarkLines({ remarks }: { readonly remarks: readonly RuleRemark[] }) {
  return remarks.map(({ severity, rule, says }) => (
    <p key={rule} className="flex gap-2 text-[13px]">
      <span className="mt-px">
        <SeverityDiamond severity={severity} />
      </span>
      <span>{says}</span>
    </p>
  ));
}
