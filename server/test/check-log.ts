import type { LogCheckReply } from '#contract/changes';
import type { TestClient } from './test-server.js';

/** Checks the chain of the log anew, and waits for what is found. */
export async function checkLog(registrar: TestClient): Promise<LogCheckReply> {
  // One that is under way may have passed what was changed since.
  for (let { state } = await progress(registrar); state === 'checking'; { state } = await progress(registrar));
  await registrar.send('POST', '/log/check');
  for (;;) {
    const now = await progress(registrar);
    if (now.state !== 'checking' && now.state !== 'waiting') return now;
  }
}

const progress = async (registrar: TestClient) => (await registrar.get<LogCheckReply>('/log/check')).body;
