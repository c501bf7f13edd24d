/** A colour of the theme as it is now, for what draws on a canvas and cannot name tokens. */
export function themeColour(token: `--${string}`): string {
  return getComputedStyle(document.documentElement).getPropertyValue(token).trim();
}
