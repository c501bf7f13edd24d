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
