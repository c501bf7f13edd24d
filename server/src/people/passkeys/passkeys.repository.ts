import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { grantsOf, spokenNameOf, type Actor, type Queries } from '#server/platform';

/** What is kept of a key: nothing of it is secret. */
export interface Passkey extends Record<string, unknown> {
  readonly id: number;
  /** In base64url, as is the key. */
  readonly credentialId: string;
  readonly publicKey: string;
  readonly counter: number;
  readonly transports: readonly string[];
  readonly name: string;
  readonly madeAt: string;
  readonly lastUsedAt: string | null;
}

/** A key with whose it is. */
export interface OwnedPasskey extends Passkey {
  readonly owner: Actor;
  readonly passwordHash: string;
}

const columns =
  sql.raw(`k.id, k.credential_id AS "credentialId", k.public_key AS "publicKey", k.counter::float8 AS counter,
  k.transports, k.name, k.created_at AS "madeAt", k.last_used_at AS "lastUsedAt"`);

/** Keys of people's own devices. */
@Injectable()
export class PasskeysRepository {
  /** The oldest first. */
  async of(queries: Queries, personId: number): Promise<Passkey[]> {
    const { rows } = await queries.execute<Passkey>(sql`
      SELECT ${columns} FROM passkeys k JOIN accounts a ON a.id = k.account_id WHERE a.person_id = ${personId} ORDER BY k.id`);
    return rows;
  }

  /** Of an account that is active and has a password; nobody else uses the key until the transaction ends. */
  async byCredential(queries: Queries, credentialId: string): Promise<OwnedPasskey | undefined> {
    const { rows } = await queries.execute<OwnedPasskey>(sql`
      SELECT ${columns}, a.password_hash AS "passwordHash", jsonb_build_object('personId', a.person_id, 'username', a.username,
        'grants', ${grantsOf('a')}, 'name', ${spokenNameOf('p')}) AS owner
      FROM passkeys k JOIN accounts a ON a.id = k.account_id JOIN people p ON p.id = a.person_id
      WHERE k.credential_id = ${credentialId} AND a.is_active AND a.password_hash IS NOT NULL FOR UPDATE OF k`);
    return rows[0];
  }

  async add(
    queries: Queries,
    personId: number,
    key: Pick<Passkey, 'credentialId' | 'publicKey' | 'counter' | 'transports' | 'name'>,
  ): Promise<void> {
    await queries.execute(sql`
      INSERT INTO passkeys (account_id, credential_id, public_key, counter, transports, name)
      SELECT id, ${key.credentialId}, ${key.publicKey}, ${key.counter}, ${JSON.stringify(key.transports)}::jsonb, ${key.name}
      FROM accounts WHERE person_id = ${personId}`);
  }

  /** Says that a key was used. */
  async use(queries: Queries, id: number, counter: number, at: Date): Promise<void> {
    await queries.execute(sql`
      UPDATE passkeys SET counter = ${counter}, last_used_at = ${at.toISOString()} WHERE id = ${id}`);
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.execute(sql`DELETE FROM passkeys WHERE id = ${id}`);
  }
}
