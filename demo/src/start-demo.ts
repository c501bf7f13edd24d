import { startWombat } from '#server/application';
import { FolderInUseError } from '#server/platform';
import { demoAccounts, demoPassword } from './draw-people.js';
import { prepareDemo } from './prepare-demo.js';

const isEmpty = process.argv.includes('--empty');

try {
  const wombat = await startWombat(process.env, isEmpty ? undefined : prepareDemo);
  console.log(`\n  Wombat is at ${wombat.address}\n`);
  if (!isEmpty) {
    for (const { username, does } of demoAccounts) console.log(`  ${username.padEnd(10)} password ${demoPassword}   ${does}`);
    console.log('');
  }
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void wombat.stop().then(() => process.exit(0)));
} catch (error) {
  const isExpected = error instanceof FolderInUseError || error instanceof RangeError || (error as { code?: string }).code === 'EADDRINUSE';
  console.error(isExpected ? `\n  ${(error as Error).message}\n` : error);
  process.exit(1);
}
