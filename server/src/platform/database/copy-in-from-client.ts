import { finished } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import type { CopyIn } from './open-database.js';

/** COPY as a server takes it: from the client that asks. */
export const copyInFromClient: CopyIn = async (client, statement, bytes) => {
  const stream = client.query(copyFrom(`${statement} STDIN`));
  stream.end(bytes);
  await finished(stream);
};
