import { FolderInUseError } from '#server/platform';
import { runDemo, runEmpty } from './run-demo.js';

process.stdout.on('error', () => undefined); // whoever read what we print may go away; the server stays

try {
  const run = process.argv.includes('--empty') ? runEmpty : runDemo;
  const { address, people, stop } = await run(process.env);
  const lines = people.map(
    ({ username, password, does }) => `  ${username.padEnd(10)} password ${password}   ${does}\n`,
  );
  console.log(`\n  Wombat is at ${address}\n\n${lines.join('')}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void stop().then(() => process.exit(0)));
} catch (error) {
  const isExpected =
    error instanceof FolderInUseError ||
    error instanceof RangeError ||
    (error as { code?: string }).code === 'EADDRINUSE';
  console.error(isExpected ? `\n  ${(error as Error).message}\n` : error);
  process.exit(1);
}
