import express, { type NextFunction, type Request, type Response } from 'express';

/** Enough for the longest list that a request may hold, and for a name with a password. */
const [largestBody, largestStrangersBody] = ['8mb', '16kb'];

const ofAnybody = express.json({ limit: largestBody });
const ofStranger = express.json({ limit: largestStrangersBody });

/** Reads a body of JSON; who is not signed in cannot make the server read much. It comes after the sessions. */
export function readJson(request: Request, response: Response, next: NextFunction): void {
  const read = request.session.signedIn ? ofAnybody : ofStranger;
  read(request, response, next);
}
