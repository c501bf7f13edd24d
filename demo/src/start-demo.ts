import { startProblem } from '#server/application';
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
  const problem = startProblem(error);
  console.error(problem ? `\n  ${problem}\n` : error);
  process.exit(1);
}
