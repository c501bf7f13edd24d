import type { BoardReply } from '#contract/board';
import { found, sheetsOf } from './board-view';

/**
 * The sheet to go on with after one: the next that is due and not signed off, first among those that come after it. Who acts on
 * behalf of a teacher goes on with theirs. Undefined where none waits.
 */
export function nextSheet(
  board: BoardReply,
  after: { readonly sectionId: number; readonly itemId: number },
  isOnBehalf: boolean,
): { readonly sectionId: number; readonly itemId: number } | undefined {
  const teacher = board.sections.find(({ sectionId }) => sectionId === after.sectionId)?.teacherId;
  const sheets = sheetsOf(board, board.now, null).filter(({ section }) => !isOnBehalf || section.teacherId === teacher);
  const at = sheets.findIndex(
    ({ section, item }) => section.sectionId === after.sectionId && item.itemId === after.itemId,
  );
  const open = new Set(found(sheets, 'open'));
  const next = [...sheets.slice(at + 1), ...sheets.slice(0, Math.max(0, at))].find((sheet) => open.has(sheet));
  return next && { sectionId: next.section.sectionId, itemId: next.item.itemId };
}
