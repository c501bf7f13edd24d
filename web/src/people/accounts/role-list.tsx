import { X } from 'lucide-react';
import { useState } from 'react';
import { normalGrants, roleNames, roles, type Grant, type Role } from '#core/access';
import { mayInAll } from '../../shell/access';
import { useSchools } from '../../shell/scope';
import { useSession } from '../../shell/session';
import { Button, IconButton } from '../../ui/button';
import { SelectField } from '../../ui/field';
import { sayRole } from './role-words';

interface RoleListProps {
  readonly schoolId: number;
  readonly grants: readonly Grant[];
  readonly isPending: boolean;
  readonly onChange: (says: string, grants: readonly Grant[]) => void;
}

const everySchool = 'all';

/** The roles of an account, and where; one more can be given, any but the last can be taken away. */
export function RoleList({ schoolId, grants, isPending, onChange }: RoleListProps) {
  const { data: schools = [] } = useSchools();
  const { data: session } = useSession();
  const [role, setRole] = useState<Role>('teacher');
  const [where, setWhere] = useState(String(schoolId));
  const given: Grant = { role, schoolId: where === everySchool ? null : Number(where) };
  const isHeld = grants.some(
    (grant) => grant.role === role && (grant.schoolId === null || grant.schoolId === given.schoolId),
  );
  return (
    <section aria-label="Roles" className="space-y-2">
      <ul className="space-y-1">
        {grants.map((grant) => (
          <li key={`${grant.role} ${grant.schoolId}`} className="flex items-center justify-between gap-2">
            {sayRole(grant, schools)}
            <IconButton
              writes
              label={`Remove ${sayRole(grant, schools)}`}
              title={grants.length === 1 ? 'An account has one role at least; deactivate it instead.' : undefined}
              disabled={isPending || grants.length === 1}
              onClick={() =>
                onChange(
                  `Removed: ${sayRole(grant, schools)}.`,
                  grants.filter((each) => each !== grant),
                )
              }
            >
              <X size={14} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
        <SelectField label="Role" value={role} onChange={({ target }) => setRole(target.value as Role)}>
          {roles.map((each) => (
            <option key={each} value={each}>
              {roleNames[each]}
            </option>
          ))}
        </SelectField>
        <SelectField label="At" value={where} onChange={({ target }) => setWhere(target.value)}>
          {schools.map(({ id, shortName }) => (
            <option key={id} value={id}>
              {shortName}
            </option>
          ))}
          {session && mayInAll(session.person, 'manage-access') && <option value={everySchool}>all schools</option>}
        </SelectField>
        <Button
          writes
          disabled={isPending || isHeld}
          onClick={() => onChange(`Added: ${sayRole(given, schools)}.`, normalGrants([...grants, given]))}
        >
          Add
        </Button>
      </div>
    </section>
  );
}
