import Papa from 'papaparse';
import { answerFromThread } from '../../work/answer-from-thread.js';
import type { WorkbookAsText, WorkbookTask } from './read-workbook-in-thread.js';
import { readWorkbookOrThrow } from './read-workbook.js';

await answerFromThread(
  async ({ bytes, name, sheet }: WorkbookTask): Promise<WorkbookAsText> => {
    const { rows, ...book } = await readWorkbookOrThrow(Buffer.from(bytes), name, sheet);
    const text = new TextEncoder().encode(`${Papa.unparse(rows as string[][], { newline: '\n' })}\n`);
    return { ...book, text };
  },
  ({ text }) => [text.buffer as ArrayBuffer],
);
