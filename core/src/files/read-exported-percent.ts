import { fromDecimal, roundHalfUp, roundTo, type Decimal } from '#core/numbers';
import { judgePercent, mostPercent, readPercentText, type ReadPercent } from '#core/posting';

/** Digits after the point that an imported percent keeps. */
export const exportedDigits = 10;

/**
 * Reads a percent out of an export. Unlike a typed one it may be as exact as the platform computed it; only beyond ten
 * digits it is rounded half up (a level alike), which takes away what binary arithmetic leaves there (86.40000000000001).
 */
export function readExportedPercent(text: string, highestLevel: Decimal | null = null): ReadPercent {
  const value = readPercentText(text.replace(/([.,]\d{15})\d+/, '$1'));
  if (value === 'blank') return { kind: 'blank' };
  if (value === undefined) return { kind: 'fault', code: 'percent-unreadable' };
  const fault = judgePercent(value, { highestLevel, highestPercent: mostPercent });
  if (fault) return { kind: 'fault', code: fault };
  let percent = value.digits > exportedDigits ? roundTo(fromDecimal(value), exportedDigits, roundHalfUp) : value;
  while (percent.digits > 0 && percent.units % 10n === 0n) {
    percent = { units: percent.units / 10n, digits: percent.digits - 1 };
  }
  return { kind: 'percent', percent };
}
