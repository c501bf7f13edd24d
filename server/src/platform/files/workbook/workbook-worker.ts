import Papa from 'papaparse';
import { answerInThread } from '../../work/answer-in-thread.js';
import type { WorkbookAsText } from './read-workbook-in-thread.js';
import { readWorkbookOrThrow } from './read-workbook.js';

answerInThread(async (_name, given): Promise<WorkbookAsText> => {
  const [bytes, fileName, sheet] = given as [Uint8Array, string, string | null];
  const { rows, ...book } = await readWorkbookOrThrow(Buffer.from(bytes), fileName, sheet);
  const lines = Papa.unparse(rows as string[][], { newline: '\n' });
  const text = new TextEncoder().encode(rows.length === 0 ? '' : `${lines}\n`);
  return { ...book, text };
});
