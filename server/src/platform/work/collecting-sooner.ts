import { setFlagsFromString } from 'node:v8';

/** How many works are under way that want it. */
let wanting = 0;

/**
 * Does a work during which garbage may grow by no more than a fifth of what is live, where it usually may grow to as much again:
 * a large file then takes a third less memory. All of the process is slower meanwhile, most of all what keeps much.
 */
export async function collectingSooner<Done>(work: () => Promise<Done>): Promise<Done> {
  if (wanting++ === 0) setFlagsFromString('--heap-growing-percent=20');
  try {
    return await work();
  } finally {
    if (--wanting === 0) setFlagsFromString('--heap-growing-percent=0');
  }
}
