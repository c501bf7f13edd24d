import { Refusal } from '../../errors/refusal.js';
import { OwnThread, type ThreadLimits } from '../../work/own-thread.js';
import type { Workbook } from './read-workbook.js';

/** A sheet of a workbook as comma-separated text (RFC 4180) in UTF-8. */
export interface WorkbookAsText extends Omit<Workbook, 'rows'> {
  readonly text: Uint8Array;
}

const usualLimits = { megabytes: 1_024, seconds: 120 };

/**
 * Reads a workbook in a thread of its own, so that nobody waits for it, and none can take the server down.
 * @param sheet the name of the sheet to read; null for the first that is not hidden
 * @throws Refusal as `readWorkbookOrThrow`, and where it takes more than a workbook may
 */
export async function readWorkbookInThread(
  bytes: Buffer,
  name: string,
  sheet: string | null,
  { megabytes, seconds }: Omit<ThreadLimits, 'tooMuch'> = usualLimits,
): Promise<WorkbookAsText> {
  const hint = 'Save the sheet with the grades as CSV.';
  const tooMuch = new Refusal('file-kind', { name, found: 'a workbook that is too large to be read', hint });
  const thread = new OwnThread(new URL('./workbook-worker.js', import.meta.url), { megabytes, seconds, tooMuch });
  try {
    return await thread.ask<WorkbookAsText>('read', bytes, name, sheet);
  } finally {
    await thread.close();
  }
}
