import { createHash } from 'node:crypto';

/** SHA-256 as 64 hexadecimal digits. */
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');
