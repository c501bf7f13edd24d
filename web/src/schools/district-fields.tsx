import type { SchoolNamesReply } from '#contract/schools';
import { SelectField, TextField } from '../ui/field';
import { Panel } from '../ui/panel';
import type { FaultOf } from './fault-of';

type District = SchoolNamesReply['district'];

/** What the district is called, and in which zone its days begin. */
export function DistrictFields({
  district,
  faultOf,
  onChange,
}: {
  district: District;
  faultOf: FaultOf;
  onChange: (district: District) => void;
}) {
  return (
    <Panel label="District" className="space-y-3 px-4 py-3">
      <h2 className="font-bold">District</h2>
      <TextField
        label="Name of the district"
        value={district.name}
        fault={faultOf('district.name')}
        onChange={({ target }) => onChange({ ...district, name: target.value })}
      />
      <SelectField
        label="Time zone"
        value={district.timeZone}
        fault={faultOf('district.timeZone')}
        onChange={({ target }) => onChange({ ...district, timeZone: target.value })}
      >
        {zonesWith(district.timeZone).map((zone) => (
          <option key={zone} value={zone}>
            {zone}
          </option>
        ))}
      </SelectField>
    </Panel>
  );
}

/** All that the browser knows, with the one that is chosen. */
function zonesWith(chosen: string): readonly string[] {
  return [...new Set([chosen, 'UTC', ...Intl.supportedValuesOf('timeZone')])].toSorted();
}
