import type { OpenSchoolRequest } from '#contract/schools';
import { TextField } from '../ui/field';
import { Panel } from '../ui/panel';
import type { FaultOf } from './fault-of';

type SchoolNames = Pick<OpenSchoolRequest, 'name' | 'shortName' | 'code'>;

/** What a school is called, at length, at the top of a page and in files. */
export function SchoolFields({
  school: { name, shortName, code },
  faultOf,
  onChange,
}: {
  school: SchoolNames;
  faultOf: FaultOf;
  onChange: (changed: Partial<SchoolNames>) => void;
}) {
  return (
    <Panel label="School" className="space-y-3 px-4 py-3">
      <h2 className="font-bold">School</h2>
      <TextField
        label="Name of the school"
        value={name}
        fault={faultOf('name')}
        onChange={({ target }) => onChange({ name: target.value })}
      />
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Short name"
          placeholder="as the top of every page shows it"
          value={shortName}
          fault={faultOf('shortName')}
          onChange={({ target }) => onChange({ shortName: target.value })}
        />
        <TextField
          label="Code"
          placeholder="for files, such as UPS"
          value={code}
          fault={faultOf('code')}
          onChange={({ target }) => onChange({ code: target.value.trim() })}
        />
      </div>
    </Panel>
  );
}
