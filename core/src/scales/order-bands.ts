import { compareDecimals, type Decimal } from '#core/numbers';

/**
 * The bands from the highest cut-off down, then those without a cut-off. Bands with the same cut-off, and those without,
 * keep their order.
 */
export function orderBands<B extends { readonly lowest: Decimal | null }>(bands: readonly B[]): B[] {
  return bands.toSorted((a, b) => {
    if (a.lowest === null || b.lowest === null) return Number(a.lowest === null) - Number(b.lowest === null);
    return compareDecimals(b.lowest, a.lowest);
  });
}
