/** The bytes of an answer as text; null where it has more than so many. @throws what ends the connection */
export async function readBody(response: Response, most: number): Promise<string | null> {
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of response.body ?? []) {
    const bytes = piece as Uint8Array;
    size += bytes.length;
    if (size > most) return null; // leaving the loop closes the connection
    pieces.push(bytes);
  }
  return Buffer.concat(pieces).toString('utf8');
}
