import { setTimeout } from 'node:timers/promises';
import type { ExchangeImportReply } from '#contract/exchange';
import type { Answer, TestClient } from './test-server.js';

/** What the server says of a zip once it is no longer being written. */
export async function writtenZip(client: TestClient, id: number): Promise<Answer<ExchangeImportReply>> {
  for (;;) {
    const answer = await client.get<ExchangeImportReply>(`/exchange/imports/${id}`);
    if (answer.body.status !== 'accepting') return answer;
    await setTimeout(50);
  }
}
