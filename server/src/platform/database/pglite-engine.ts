import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** A compiled program, which can be passed to a thread. */
export type Engine = object;

/** Node.js has it; its types come with those of a browser, which the server does without. */
declare const WebAssembly: { compile(program: Uint8Array): Promise<Engine> };

const packageFolder = dirname(createRequire(import.meta.url).resolve('@electric-sql/pglite'));

let engine: Promise<Engine> | undefined;

/**
 * The program of PGlite, compiled once for all databases that this process opens one after another: whatever one of them has
 * made fast stays fast for the next.
 */
export function compiledEngine(): Promise<Engine> {
  return (engine ??= WebAssembly.compile(readFileSync(join(packageFolder, 'pglite.wasm'))));
}
