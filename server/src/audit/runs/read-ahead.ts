/**
 * What is read of one part after the other: while somebody looks at one, the next is read. A part is asked for when it is its
 * turn to be read, so that whoever deals them out knows how those before went.
 * @throws what the reading of a part throws, when its turn comes
 */
export async function* readAhead<Part, Read>(
  parts: Iterable<Part>,
  read: (part: Part) => Promise<Read>,
): AsyncGenerator<Read> {
  const turns = parts[Symbol.iterator]();
  const begin = () => {
    const turn = turns.next();
    if (turn.done) return undefined;
    const reading = read(turn.value);
    reading.catch(() => undefined); // it is told of in its turn, or nobody waits for it any more
    return reading;
  };
  for (let coming = begin(); coming !== undefined;) {
    const here = await coming;
    coming = begin();
    yield here;
  }
}
