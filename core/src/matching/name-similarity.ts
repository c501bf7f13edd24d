/** Common letters at the beginning count up to this many, each for a tenth of what is missing. */
const mostInPrefix = 4;
const prefixShare = 0.1;

/**
 * How alike two names are in spelling, from 0 to 1: the measure of Jaro with the addition for a common beginning.
 * Capitals count; fold them first where they should not. Two empty names are alike.
 * Source: W. E. Winkler, "String Comparator Metrics and Enhanced Decision Rules in the Fellegi–Sunter Model of Record
 * Linkage" (1990).
 * @example nameSimilarity('DIXON', 'DICKSONX') // 0.813
 */
export function nameSimilarity(one: string, other: string): number {
  const [a, b] = [[...one], [...other]];
  const jaro = jaroSimilarity(a, b);
  const differsAt = a.slice(0, mostInPrefix).findIndex((letter, at) => letter !== b[at]);
  const prefix = differsAt < 0 ? Math.min(a.length, mostInPrefix) : differsAt;
  return jaro + prefix * prefixShare * (1 - jaro);
}

function jaroSimilarity(a: readonly string[], b: readonly string[]): number {
  if (a.length === 0 && b.length === 0) return 1;
  const reach = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Set<number>();
  const inA = a.filter((letter, at) => {
    for (let from = Math.max(0, at - reach); from <= Math.min(b.length - 1, at + reach); from++) {
      if (b[from] !== letter || taken.has(from)) continue;
      taken.add(from);
      return true;
    }
    return false;
  });
  if (inA.length === 0) return 0;
  const inB = b.filter((_letter, at) => taken.has(at));
  const moved = inA.filter((letter, at) => letter !== inB[at]).length / 2;
  return (inA.length / a.length + inA.length / b.length + (inA.length - moved) / inA.length) / 3;
}
