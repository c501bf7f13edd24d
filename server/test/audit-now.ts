import type { AuditProgressReply, AuditReply } from '#contract/audit';
import type { Answer, TestClient } from './test-server.js';

const pauseMilliseconds = 100;

/** Audits a period and waits until it is done, as whoever looks at it does. @throws Error where it comes to nothing */
export async function auditNow(client: TestClient, periodId: number): Promise<Answer<AuditReply>> {
  const { status } = await client.send('POST', '/audit/runs', { periodId });
  if (status !== 202) throw new Error(`the audit answers ${status}`);
  for (;;) {
    const { task } = (await client.get<AuditProgressReply>(`/audit/progress?period=${periodId}`)).body;
    if (task === null) return client.get<AuditReply>(`/audit?period=${periodId}`);
    if (task.state !== 'running') throw new Error(`the audit is ${task.state}: ${task.problem}`);
    await new Promise((resolve) => setTimeout(resolve, pauseMilliseconds));
  }
}
