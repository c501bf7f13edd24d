import { startWombat } from '#server/application';
import { FolderInUseError } from '#server/platform';
import { demoAccounts, demoPassword } from './draw-people.js';
import { connectPlatforms, startPlatforms } from './connect-platforms.js';
import { prepareDemo } from './prepare-demo.js';

process.stdout.on('error', () => undefined); // whoever read what we print may go away; the server stays

const isEmpty = process.argv.includes('--empty');

try {
  const platforms = isEmpty ? undefined : await startPlatforms();
  const wombat = await startWombat(process.env, async (database) => {
    if (!platforms) return;
    await prepareDemo(database);
    await connectPlatforms(database, platforms.addresses);
  });
  const people: { username: string; password: string; does: string }[] = isEmpty
    ? []
    : demoAccounts.map(({ username, does }) => ({ username, password: demoPassword, does }));
  if (wombat.firstRegistrar)
    people.push({ ...wombat.firstRegistrar, does: 'the first registrar; this password is told only now' });
  const lines = people.map(
    ({ username, password, does }) => `  ${username.padEnd(10)} password ${password}   ${does}\n`,
  );
  console.log(`\n  Wombat is at ${wombat.address}\n\n${lines.join('')}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      platforms?.stop();
      void wombat.stop().then(() => process.exit(0));
    });
} catch (error) {
  const isExpected =
    error instanceof FolderInUseError ||
    error instanceof RangeError ||
    (error as { code?: string }).code === 'EADDRINUSE';
  console.error(isExpected ? `\n  ${(error as Error).message}\n` : error);
  process.exit(1);
}
