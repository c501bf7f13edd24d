import { FolderInUseError, OtherTablesError } from '#server/platform';

type SystemError = Error & { readonly code?: string; readonly path?: string; readonly port?: number };

const refused = (error: SystemError) =>
  `Wombat may not write ${error.path ?? 'in its data folder'}. Let it, or choose another folder with WOMBAT_DATA.`;
const full = ({ path }: SystemError) =>
  `The disk is full${path ? ` (${path})` : ''}. Make room, or choose another folder with WOMBAT_DATA.`;
const unreachable = () =>
  `The database server of DATABASE_URL cannot be reached. Is it running, and is the address right?`;
const notLetIn = () => `The database server of DATABASE_URL does not let this user in with this password.`;

/** By the code of the system (POSIX), or of PostgreSQL (appendix A of its documentation). */
const sentences: Readonly<Record<string, (error: SystemError) => string>> = {
  EADDRINUSE: ({ port }) => `Port ${port} is taken by another program. Choose another with PORT.`,
  EACCES: refused,
  EPERM: refused,
  EROFS: refused,
  ENOSPC: full,
  EDQUOT: full,
  ENOTDIR: ({ path }) => `${path} cannot be a folder: a file is in its way. Choose another with WOMBAT_DATA.`,
  ECONNREFUSED: unreachable,
  ENOTFOUND: unreachable,
  ETIMEDOUT: unreachable,
  '28P01': notLetIn,
  '28000': notLetIn,
  '3D000': () => `The database server has no database of the name in DATABASE_URL. Create it first.`,
};

/** Why Wombat could not start, for whoever started it and can do something about it; undefined for a fault of its own. */
export function startProblem(error: unknown): string | undefined {
  if (error instanceof FolderInUseError || error instanceof OtherTablesError || error instanceof RangeError)
    return error.message;
  if (!(error instanceof Error)) return undefined;
  const { code } = error as SystemError;
  const sentence = code === undefined ? undefined : sentences[code]?.(error);
  return sentence ?? startProblem(error.cause);
}
