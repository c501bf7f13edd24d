import type { MarkBody, SheetListReply, SheetReply, SheetRowReply } from '#contract/posting';
import type { TestClient } from './test-server.js';

/** Quarter 2 of the Upper School, whose window is open, and its one item. */
export const openPeriod = 4;
export const quarterGrade = 1;
/** Posted in each quarter, at most 100 percent. */
export const examGrade = 101;

export async function sheetNamed(
  client: TestClient,
  section: string,
  itemId = quarterGrade,
  period = openPeriod,
): Promise<{ path: string; sheet: SheetReply }> {
  const { body: lists } = await client.get<SheetListReply[]>(`/grade-sheets?period=${period}`);
  const summary = lists.find((each) => each.itemId === itemId)!.sheets.find((each) => each.section === section);
  if (!summary) throw new Error(`no sheet for ${section}`);
  const path = `/grade-sheets/${summary.sectionId}/${itemId}/${period}`;
  const { body: sheet } = await client.get<SheetReply>(path);
  return { path, sheet };
}

export function changeOf({ enrollmentId, version, mark }: SheetRowReply, change: Partial<MarkBody>) {
  return { ...mark, ...change, enrollmentId, version };
}
