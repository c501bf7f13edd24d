import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

/** The header of a reply that says which change the request made, so that whoever made it can undo it. */
export const changeHeader = 'x-wombat-change';

const replies = new AsyncLocalStorage<Response>();

/** Middleware: what follows belongs to this reply. */
export function rememberReply(_request: Request, response: Response, next: NextFunction): void {
  replies.run(response, next);
}

/** Names a change on the reply of the request that makes it; of several the last. Outside a request nothing happens. */
export function tellOfChange(id: number): void {
  const reply = replies.getStore();
  if (reply && !reply.headersSent) reply.setHeader(changeHeader, String(id));
}
