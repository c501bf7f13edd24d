import type { CertificateBreak } from '#core/audit';
import { listed } from '#contract/messages';

const words: Readonly<Record<CertificateBreak, string>> = {
  grades: 'grades changed',
  findings: 'findings block again',
  waivers: 'a waiver ended',
  rules: 'the rules changed',
};

/** Why a certificate no longer holds. @example brokenInWords(['grades', 'rules']) // 'grades changed and the rules changed' */
export function brokenInWords(broken: readonly CertificateBreak[]): string {
  return listed(broken.map((each) => words[each]));
}
