import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { OpenDatabase } from '../database/open-database.js';
import { DATABASE } from '../database/transactions.js';

/** Before every locked text; what does not begin so was never locked. */
const start = 'locked:';
const method = 'aes-256-gcm';
const [nonceBytes, tagBytes] = [12, 16];

/**
 * Locks what other systems trust us with, so that the database alone, or a copy of it, opens nothing. The key lies beside an
 * embedded database as a file that is its owner's alone; with a database server it comes from WOMBAT_KEY, the same for all
 * Wombats on it, and without one nothing is locked.
 */
@Injectable()
export class SecretBox {
  private readonly key: Buffer | null;

  constructor(@Inject(DATABASE) { folder }: OpenDatabase) {
    const stated = process.env['WOMBAT_KEY'];
    if (stated) this.key = createHash('sha256').update(stated).digest();
    else this.key = folder === null ? null : keyIn(folder);
  }

  lock(text: string): string {
    if (!this.key) return text;
    const nonce = randomBytes(nonceBytes);
    const cipher = createCipheriv(method, this.key, nonce);
    const locked = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return start + Buffer.concat([nonce, cipher.getAuthTag(), locked]).toString('base64');
  }

  /** The text; undefined where it was locked with another key, or altered. */
  open(text: string): string | undefined {
    if (!text.startsWith(start)) return text;
    const bytes = Buffer.from(text.slice(start.length), 'base64');
    if (!this.key || bytes.length < nonceBytes + tagBytes) return undefined;
    const decipher = createDecipheriv(method, this.key, bytes.subarray(0, nonceBytes));
    decipher.setAuthTag(bytes.subarray(nonceBytes, nonceBytes + tagBytes));
    try {
      const opened = decipher.update(bytes.subarray(nonceBytes + tagBytes));
      return Buffer.concat([opened, decipher.final()]).toString('utf8');
    } catch {
      return undefined;
    }
  }
}

function keyIn(folder: string): Buffer {
  const file = join(folder, 'key');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32), { mode: 0o600, flag: 'wx', flush: true });
  return readFileSync(file);
}
