import type { ScaleReply, TieBody } from '#contract/scales';
import { SelectField, TextField } from '../ui/field';

interface TieFieldsProps {
  readonly scales: readonly ScaleReply[];
  readonly tie: TieBody | null;
  readonly fault: (field: string) => string | undefined;
  readonly onChange: (tie: TieBody | null) => void;
}

/** What a scale follows, and how far beside it it lies. */
export function TieFields({ scales, tie, fault, onChange }: TieFieldsProps) {
  return (
    <div className="space-y-3">
      <SelectField
        label="Follows another scale"
        value={tie?.toId ?? ''}
        fault={fault('tie.toId')}
        onChange={(event) => {
          const toId = Number(event.target.value);
          onChange(
            toId ? { cutOffShift: tie?.cutOffShift ?? '-0.5', pointsShift: tie?.pointsShift ?? '0', toId } : null,
          );
        }}
      >
        <option value="">none; its bands are its own</option>
        {scales.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      {tie && (
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label="Cut-offs shifted by"
            value={tie.cutOffShift}
            fault={fault('tie.cutOffShift')}
            onChange={(event) =>
              onChange({ ...tie, cutOffShift: event.target.value.trim().replace('−', '-').replace(',', '.') })
            }
          />
          <TextField
            label="Grade points shifted by"
            value={tie.pointsShift}
            fault={fault('tie.pointsShift')}
            onChange={(event) =>
              onChange({ ...tie, pointsShift: event.target.value.trim().replace('−', '-').replace(',', '.') })
            }
          />
        </div>
      )}
      {tie && (
        <p className="text-[13px] text-quiet">
          −0.5 makes each cut-off half a point kinder. Every new version of the other scale makes one of this scale.
        </p>
      )}
    </div>
  );
}
