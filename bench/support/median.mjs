/** Milliseconds of `work`, the median of `rounds` after one that does not count. Works with promises as well. */
export async function median(rounds, work) {
  await work();
  const times = [];
  for (let round = 0; round < rounds; round++) {
    const began = performance.now();
    await work();
    times.push(performance.now() - began);
  }
  return times.toSorted((a, b) => a - b)[Math.floor(rounds / 2)];
}

/**
 * Milliseconds of two works done in turn, from the round whose ratio is the median one, after one that does not count: a
 * machine that is slow for a while is slow for both.
 */
export async function paired(rounds, ours, peer) {
  const timed = async (work) => {
    const began = performance.now();
    await work();
    return performance.now() - began;
  };
  await ours();
  await peer();
  const pairs = [];
  for (let round = 0; round < rounds; round++) pairs.push({ ours: await timed(ours), peer: await timed(peer) });
  return pairs.toSorted((a, b) => a.ours / a.peer - b.ours / b.peer)[Math.floor(rounds / 2)];
}
