import type { FileStatus } from '#core/files';

/** How far a file is, as what is said of it goes on: "This file …". */
export const fileStates: Readonly<Record<FileStatus, string>> = {
  reading: 'is still being read',
  refused: 'was refused when it was read',
  read: 'has no preview yet: choose its columns first',
  planning: 'has no preview yet: it is being made',
  planned: 'is not imported yet',
  accepting: 'is being imported already',
  accepted: 'is imported already',
  undoing: 'is not imported any more: its import is being undone',
  undone: 'is not imported any more: its import was undone',
};
