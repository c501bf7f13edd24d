import { sql, type SQL } from 'drizzle-orm';
import { roles, type Grant } from '#core/access';

const order = sql.raw(`'{${roles.join(',')}}'::text[]`);

/** The roles of an account, in the order of `normalGrants`, where `account` is what the question calls its table. */
export const grantsOf = (account: string): SQL<Grant[]> => sql<Grant[]>`(
  SELECT coalesce(jsonb_agg(jsonb_build_object('role', r.role, 'schoolId', r.school_id)
    ORDER BY array_position(${order}, r.role), coalesce(r.school_id, 0)), '[]')
  FROM account_roles r WHERE r.account_id = ${sql.raw(account)}.id)`;
