/** Lightest and darkest share of the leading colour in a band below the highest, in percent. */
const [lightest, darkest] = [12, 56];

/**
 * The colour of a band by its rank: the higher the darker, the highest in the full colour, failing bands without it. The
 * shares keep the label's contrast above 4.5:1 in light and dark.
 */
export function bandTint(index: number, count: number, passes: boolean): { fill: string; ink: string } {
  if (!passes) return { fill: 'color-mix(in srgb, var(--waratah) 12%, var(--surface))', ink: 'var(--ink)' };
  if (index === 0) return { fill: 'var(--eucalypt)', ink: 'var(--on-eucalypt)' };
  const share = darkest - ((darkest - lightest) * (index - 1)) / Math.max(1, count - 2);
  return { fill: `color-mix(in srgb, var(--eucalypt) ${share.toFixed(1)}%, var(--surface))`, ink: 'var(--ink)' };
}
