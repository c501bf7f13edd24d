import type { Request } from 'express';
import { wholeText } from '#core/formats';
import type { TriedFrom } from './sign-in-tries.js';

/** Where a request comes from. Cut, as the one who asks writes the second. */
export function triedFrom(request: Request): TriedFrom {
  return { address: request.ip ?? '', browser: wholeText(request.get('user-agent') ?? '', 200) };
}
