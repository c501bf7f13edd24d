import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/**
 * The script of a thread, named as it lies beside its owner: `new URL('./effect-worker.js', import.meta.url)`. Threads run
 * compiled JavaScript only; where the server itself runs from its sources, as in tests, the built one is taken.
 */
export function workerFile(beside: URL): string {
  const path = fileURLToPath(beside);
  return existsSync(path) ? path : path.replace(/([\\/])src([\\/])(?!.*[\\/]src[\\/])/, '$1dist$2');
}
