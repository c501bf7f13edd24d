/** For an order that is the same everywhere, whatever the language. */
export const compareText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
