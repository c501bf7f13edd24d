/**
 * The colour of a band by its rank: the higher the darker, the highest in the full colour, failing bands without it. How
 * far the shares spread is a token of the theme, so that labels keep a contrast of 4.5:1 in light and dark.
 */
export function bandTint(index: number, count: number, passes: boolean): { fill: string; ink: string } {
  if (!passes) return { fill: 'color-mix(in srgb, var(--waratah) 12%, var(--surface))', ink: 'var(--ink)' };
  if (index === 0) return { fill: 'var(--eucalypt)', ink: 'var(--on-eucalypt)' };
  const rank = 1 - (index - 1) / Math.max(1, count - 2);
  const share = `calc(12% + var(--tint-spread) * ${rank.toFixed(3)})`;
  return { fill: `color-mix(in srgb, var(--eucalypt) ${share}, var(--surface))`, ink: 'var(--ink)' };
}
