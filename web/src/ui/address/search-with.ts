/** What an address asks for with some of it set anew; null takes it out. */
export function searchWith(
  before: URLSearchParams,
  changes: Readonly<Record<string, string | null | undefined>>,
): URLSearchParams {
  const after = new URLSearchParams(before);
  for (const [key, value] of Object.entries(changes)) {
    if (value) after.set(key, value);
    else after.delete(key);
  }
  return after;
}
