import { compareDecimals, type Decimal } from '#core/numbers';

/** The bands from the highest cut-off down. Bands with the same cut-off keep their order. */
export function orderBands<B extends { readonly lowest: Decimal }>(bands: readonly B[]): B[] {
  return bands.toSorted((a, b) => compareDecimals(b.lowest, a.lowest));
}
