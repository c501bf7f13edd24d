import { setImmediate } from 'node:timers/promises';
import {
  keyOf,
  withRosterFields,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeVersion,
  type RosterFields,
} from '#core/exchange';
import type { KeptFields } from './roster-fields.repository.js';

/** What goes out: what Wombat makes, and over it what rosters said. */
export async function withKept(made: ExchangeRows, kept: KeptFields, version: ExchangeVersion): Promise<ExchangeRows> {
  const rows: { -readonly [File in ExchangeFile]?: readonly ExchangeRow[] } = {};
  for (const [file, own] of Object.entries(made) as [ExchangeFile, readonly ExchangeRow[]][]) {
    rows[file] = withKeptFields(file, own, kept);
    await setImmediate(); // others are answered in between
  }
  const roles = rolesOfPeople(kept.get('roles'));
  const users = rows.users ?? [];
  if (version === '1.1') return { ...rows, users: users.map((user) => withRole(user, roles)) };
  return {
    ...rows,
    users: users.map(withoutRole),
    roles: users.flatMap((user) => roles.get(user['sourcedId']!) ?? roleOf(user)),
  };
}

/** Rows of one file, with what rosters said over them. */
export function withKeptFields(
  file: ExchangeFile,
  made: readonly ExchangeRow[],
  kept: KeptFields,
): readonly ExchangeRow[] {
  const fields = kept.get(file);
  return fields ? made.map((row) => withRosterFields(file, row, fields.get(keyOf(file, row)))) : made;
}

/** In the later version the role stands in a file of its own. */
export function withPrimaryOrg({ orgSourcedIds, ...user }: ExchangeRow): ExchangeRow {
  return { ...user, primaryOrgSourcedId: (orgSourcedIds ?? '').split(',')[0]! };
}

/** The role that a person has by what Wombat knows, or by what an earlier version's zip said. */
export function roleOf({ sourcedId, role, orgSourcedIds, primaryOrgSourcedId }: ExchangeRow): ExchangeRow {
  return {
    sourcedId: `role-${sourcedId}`,
    userSourcedId: sourcedId!,
    roleType: 'primary',
    role: role === 'administrator' ? 'siteAdministrator' : role!,
    orgSourcedId: primaryOrgSourcedId || (orgSourcedIds ?? '').split(',')[0]!,
  };
}

function rolesOfPeople(kept: ReadonlyMap<string, RosterFields> | undefined): ReadonlyMap<string, ExchangeRow[]> {
  const roles = new Map<string, ExchangeRow[]>();
  for (const [sourcedId, { said }] of kept ?? []) {
    const person = said['userSourcedId']!;
    roles.set(person, [...(roles.get(person) ?? []), { sourcedId, ...said }]);
  }
  return roles;
}

/** The words of the earlier version for a role; what it has none for is an administrator there. */
const earlierRoles = ['aide', 'proctor', 'student', 'teacher'];

function withRole(user: ExchangeRow, roles: ReadonlyMap<string, readonly ExchangeRow[]>): ExchangeRow {
  const own = roles.get(user['sourcedId']!);
  const main = own?.find(({ roleType }) => roleType === 'primary') ?? own?.[0];
  if (!main) return user;
  return { ...user, role: earlierRoles.includes(main['role']!) ? main['role']! : 'administrator' };
}

function withoutRole({ role: _role, ...user }: ExchangeRow): ExchangeRow {
  return user;
}
