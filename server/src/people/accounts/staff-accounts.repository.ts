import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Grant } from '#core/access';
import { grantsOf, intArray, personNameOf, spokenNameOf, nameOrderOf, textList, type Queries } from '#server/platform';
import { sha256 } from '#server/changes';
import type { AccountValue } from './account.thing.js';
import { linkDays } from './link-letter.js';

const day = 24 * 60 * 60 * 1000;

/** One of the staff with the account that they have, if any. */
export interface StaffAccount {
  readonly personId: number;
  readonly name: string;
  readonly spokenName: string;
  readonly givenName: string;
  readonly familyName: string;
  readonly email: string;
  readonly accountId: number | null;
  readonly username: string | null;
  /** None without an account. */
  readonly grants: readonly Grant[];
  readonly isActive: boolean;
  readonly hasPassword: boolean;
  readonly linkUntil: Date | null;
  readonly lastSignInAt: Date | null;
}

/** Who of the staff can sign in, and the links by which they choose their passwords. */
@Injectable()
export class StaffAccountsRepository {
  /** The staff of a school, and those of no school, by name. @param now links that have expired by then wait no more */
  async ofSchool(queries: Queries, schoolId: number, now: Date): Promise<StaffAccount[]> {
    const { rows } = await queries.execute<{ [Key in keyof StaffAccount]: StaffAccount[Key] }>(sql`
      SELECT p.id AS "personId", ${personNameOf('p')} AS name, ${spokenNameOf('p')} AS "spokenName",
        p.given_name AS "givenName", p.family_name AS "familyName", p.email, a.id AS "accountId", a.username, ${grantsOf('a')} AS grants,
        coalesce(a.is_active, false) AS "isActive", a.password_hash IS NOT NULL AS "hasPassword",
        (SELECT max(l.expires_at) FROM account_links l
         WHERE l.account_id = a.id AND l.used_at IS NULL AND l.expires_at > ${now.toISOString()}) AS "linkUntil",
        (SELECT max(c.at) FROM change_log c
         WHERE c.thing = 'account ' || a.username AND c.action = 'sign in') AS "lastSignInAt"
      FROM people p LEFT JOIN accounts a ON a.person_id = p.id
      WHERE p.kind = 'staff' AND (p.school_id = ${schoolId} OR p.school_id IS NULL
        OR EXISTS (SELECT 1 FROM account_roles r WHERE r.account_id = a.id AND r.school_id = ${schoolId}))
      ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows.map((row) => ({
      ...row,
      linkUntil: row.linkUntil && new Date(row.linkUntil),
      lastSignInAt: row.lastSignInAt && new Date(row.lastSignInAt),
    }));
  }

  async byUsernames(
    queries: Queries,
    usernames: readonly string[],
  ): Promise<(AccountValue & { readonly username: string; readonly name: string; readonly hasPassword: boolean })[]> {
    const { rows } = await queries.execute<
      AccountValue & { username: string; name: string; hasPassword: boolean } & Record<string, unknown>
    >(sql`
      SELECT a.username, a.person_id AS "personId", ${grantsOf('a')} AS grants, a.is_active AS "isActive", ${spokenNameOf('p')} AS name,
        a.password_hash IS NOT NULL AS "hasPassword"
      FROM accounts a JOIN people p ON p.id = a.person_id WHERE a.username IN ${textList(usernames)} ORDER BY a.username`);
    return rows;
  }

  async usernames(queries: Queries): Promise<ReadonlySet<string>> {
    const { rows } = await queries.execute<{ username: string }>(sql`SELECT username FROM accounts`);
    return new Set(rows.map(({ username }) => username));
  }

  /** Keeps others from changing accounts until the transaction ends. */
  async hold(queries: Queries): Promise<void> {
    await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext('accounts'))`);
  }

  /** Whether a registrar with another name than these can sign in. */
  async hasRegistrarBesides(queries: Queries, usernames: readonly string[]): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM accounts a JOIN account_roles r ON r.account_id = a.id
      WHERE r.role = 'registrar' AND r.school_id IS NULL AND a.is_active AND a.password_hash IS NOT NULL
        AND a.username NOT IN ${textList(usernames)} LIMIT 1`);
    return rows.length > 0;
  }

  async put(queries: Queries, values: ReadonlyMap<string, AccountValue | null>): Promise<void> {
    const kept = [...values].flatMap(([username, value]) => (value ? [{ username, ...value }] : []));
    const gone = [...values].flatMap(([username, value]) => (value ? [] : [username]));
    if (gone.length > 0) await queries.execute(sql`DELETE FROM accounts WHERE username IN ${textList(gone)}`);
    if (kept.length > 0)
      await queries.execute(sql`
        WITH wanted AS (
          SELECT * FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
            AS n (username text, "personId" int, grants jsonb, "isActive" boolean)
        ), written AS (
          INSERT INTO accounts (username, person_id, is_active) SELECT username, "personId", "isActive" FROM wanted
          ON CONFLICT (username) DO UPDATE SET is_active = excluded.is_active RETURNING id, username
        ), gone AS (
          DELETE FROM account_roles r USING written w JOIN wanted n USING (username)
          WHERE r.account_id = w.id AND NOT EXISTS (SELECT 1 FROM jsonb_to_recordset(n.grants) AS g (role text, "schoolId" int)
            WHERE g.role = r.role AND g."schoolId" IS NOT DISTINCT FROM r.school_id)
        )
        INSERT INTO account_roles (account_id, role, school_id)
        SELECT w.id, g.role, g."schoolId"
        FROM written w JOIN wanted n USING (username), jsonb_to_recordset(n.grants) AS g (role text, "schoolId" int)
        ON CONFLICT DO NOTHING`);
  }

  /** Active accounts of a sign-in name or an address, with an address to write to, each with a school whose outbox has the message. */
  async byNameOrAddress(queries: Queries, name: string): Promise<AskedAccount[]> {
    const { rows } = await queries.execute<{ [Key in keyof AskedAccount]: AskedAccount[Key] }>(sql`
      SELECT a.person_id AS "personId", a.username, ${spokenNameOf('p')} AS name, p.email, a.password_hash IS NULL AS "isFirst",
        coalesce(p.school_id, (SELECT min(r.school_id) FROM account_roles r WHERE r.account_id = a.id),
          (SELECT min(id) FROM schools)) AS "schoolId"
      FROM accounts a JOIN people p ON p.id = a.person_id
      WHERE a.is_active AND p.email <> '' AND (a.username = ${name} OR lower(p.email) = ${name}) ORDER BY a.id`);
    return rows;
  }

  /** Gives people a new link each; those that they had end. @returns the token that stands in each, by person */
  async giveLinks(queries: Queries, personIds: readonly number[], now: Date): Promise<ReadonlyMap<number, string>> {
    const tokens = new Map(personIds.map((id) => [id, randomBytes(32).toString('base64url')]));
    const links = [...tokens].map(([personId, token]) => ({ personId, tokenHash: sha256(token) }));
    const [written, expires] = [now, new Date(now.getTime() + linkDays * day)].map((at) => at.toISOString());
    await queries.execute(sql`
      UPDATE account_links SET expires_at = ${written} WHERE used_at IS NULL AND expires_at > ${written}
        AND account_id IN (SELECT id FROM accounts WHERE person_id = ANY(${intArray(personIds)}))`);
    await queries.execute(sql`
      INSERT INTO account_links (account_id, token_hash, written_at, expires_at)
      SELECT a.id, n."tokenHash", ${written}::timestamptz, ${expires}::timestamptz
      FROM jsonb_to_recordset(${JSON.stringify(links)}::jsonb) AS n ("personId" int, "tokenHash" text)
      JOIN accounts a ON a.person_id = n."personId"`);
    return tokens;
  }

  /** Whose password a link sets, if it can still be used; it stays so until the transaction ends. */
  async byLink(queries: Queries, tokenHash: string, now: Date): Promise<LinkedAccount | undefined> {
    const { rows } = await queries.execute<{ [Key in keyof LinkedAccount]: LinkedAccount[Key] }>(sql`
      SELECT a.id AS "accountId", a.person_id AS "personId", a.username, ${grantsOf('a')} AS grants, ${spokenNameOf('p')} AS name, p.email,
        a.password_hash IS NULL AS "isFirst"
      FROM account_links l JOIN accounts a ON a.id = l.account_id JOIN people p ON p.id = a.person_id
      WHERE l.token_hash = ${tokenHash} AND l.used_at IS NULL AND l.expires_at > ${now.toISOString()} AND a.is_active
      FOR UPDATE OF l, a`);
    return rows[0];
  }

  async idOf(queries: Queries, personId: number): Promise<number> {
    const { rows } = await queries.execute<{ id: number }>(sql`SELECT id FROM accounts WHERE person_id = ${personId}`);
    return rows[0]!.id;
  }

  /** Sets a password; every link of the account is used up by it. */
  async setPassword(queries: Queries, accountId: number, passwordHash: string, now: Date): Promise<void> {
    await queries.execute(sql`UPDATE accounts SET password_hash = ${passwordHash} WHERE id = ${accountId}`);
    await queries.execute(sql`
      UPDATE account_links SET used_at = ${now.toISOString()} WHERE account_id = ${accountId} AND used_at IS NULL`);
  }
}

/** An account for which a new password is asked. */
export interface AskedAccount {
  readonly personId: number;
  readonly username: string;
  /** "Tamsin Reed". */
  readonly name: string;
  readonly email: string;
  readonly isFirst: boolean;
  readonly schoolId: number;
}

export interface LinkedAccount {
  readonly accountId: number;
  readonly personId: number;
  readonly username: string;
  readonly grants: readonly Grant[];
  /** "Tamsin Reed". */
  readonly name: string;
  readonly email: string;
  readonly isFirst: boolean;
}
