/** How many tints a category can have; the colours themselves are tokens of the theme. */
export const categoryTints = 8;

export function categoryTint(tint: number): { readonly fill: string; readonly ink: string } {
  return { fill: `var(--category-${tint % categoryTints})`, ink: 'var(--ink)' };
}
