import { isSameInForce, type RuleInForce } from './rule-settings.js';

/** What a certificate rests on. */
export interface Certified {
  /** SHA-256 of the grades as they were audited. */
  readonly gradesHash: string;
  /** With what each did: its severity or that it was switched off, where it begins, and what it left alone. */
  readonly rules: readonly RuleInForce[];
  /** The findings that somebody let stand, by their keys. */
  readonly waived: readonly string[];
}

/** The same as it is now, and how many findings keep the period from being sealed. */
export interface CertifiedNow extends Certified {
  readonly blocking: number;
}

export const certificateBreaks = ['grades', 'findings', 'waivers', 'rules'] as const;
export type CertificateBreak = (typeof certificateBreaks)[number];

/**
 * What of a certificate no longer holds; nothing where it stands.
 * @example whatBroke({ gradesHash: 'a', rules: [], waived: [] }, { gradesHash: 'b', rules: [], waived: [], blocking: 0 }) // ['grades']
 */
export function whatBroke(certified: Certified, now: CertifiedNow): CertificateBreak[] {
  const inForce = new Map(now.rules.map((rule) => [rule.id, rule]));
  const areSame = certified.rules.every((rule) => {
    const current = inForce.get(rule.id);
    return current !== undefined && isSameInForce(rule, current);
  });
  const holding = new Set(now.waived);
  const broken: Readonly<Record<CertificateBreak, boolean>> = {
    grades: certified.gradesHash !== now.gradesHash,
    findings: now.blocking > 0,
    waivers: certified.waived.some((key) => !holding.has(key)),
    rules: !areSame || certified.rules.length !== now.rules.length,
  };
  return certificateBreaks.filter((each) => broken[each]);
}
