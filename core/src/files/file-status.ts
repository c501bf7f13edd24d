/** What became of a file so far, in the order in which it can come to pass; "refused" instead of being read. */
export const fileStatuses = [
  'reading',
  'refused',
  'read',
  'planning',
  'planned',
  'accepting',
  'accepted',
  'undoing',
  'undone',
] as const;
export type FileStatus = (typeof fileStatuses)[number];

/** A server works on it. */
export function isFileUnderWay(status: FileStatus): boolean {
  return status === 'reading' || status === 'planning' || status === 'accepting' || status === 'undoing';
}

/** Somebody has to decide what becomes of it. */
export function doesFileWait(status: FileStatus): boolean {
  return status === 'read' || status === 'planned' || status === 'refused';
}

/** Its columns can be given another meaning: what is planned so far is planned anew. */
export function canChooseColumns(status: FileStatus): boolean {
  return status === 'read' || status === 'planning' || status === 'planned';
}

/** Nothing of it has been seen yet. */
export function canDiscardFile(status: FileStatus): boolean {
  return canChooseColumns(status) || status === 'reading' || status === 'accepting' || status === 'refused';
}
