/**
 * What is read of one part after the other: while somebody looks at one, the next is read.
 * @throws what the reading of a part throws, when its turn comes
 */
export async function* readAhead<Part, Read>(
  parts: readonly Part[],
  read: (part: Part) => Promise<Read>,
): AsyncGenerator<Read> {
  const begin = (at: number) => {
    if (at >= parts.length) return undefined;
    const reading = read(parts[at]!);
    reading.catch(() => undefined); // it is told of in its turn, or nobody waits for it any more
    return reading;
  };
  let coming = begin(0);
  for (let at = 1; coming !== undefined; at++) {
    const here = await coming;
    coming = begin(at);
    yield here;
  }
}
