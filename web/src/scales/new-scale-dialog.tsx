import { useState } from 'react';
import { scaleKinds, type ScaleKind } from '#core/scales';
import type { PeriodReply } from '#contract/calendar';
import type { ScalesReply, TieBody } from '#contract/scales';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { CheckField, SelectField, TextField } from '../ui/field';
import { useAddScale } from './queries';
import { beginnings } from './beginnings';
import { TieFields } from './tie-fields';
import { kindWords } from './words';

interface NewScaleDialogProps {
  readonly reply: ScalesReply;
  readonly period: PeriodReply;
  readonly onClose: () => void;
  readonly onAdded: (id: number) => void;
}

const shownFields = ['name', 'highestLevel', 'tie.toId', 'tie.cutOffShift', 'tie.pointsShift'];

/** A new scale: of a kind with bands to begin with, a copy of another, or tied to one. */
export function NewScaleDialog({ reply, period, onClose, onAdded }: NewScaleDialogProps) {
  const { schoolId } = useScope();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<ScaleKind>('percent');
  /** The number of a scale, or a beginning counted from 0 downwards. */
  const [copied, setCopied] = useState(0);
  const [highestLevel, setHighestLevel] = useState('4');
  const [isDistrictWide, setDistrictWide] = useState(false);
  const [tie, setTie] = useState<TieBody | null>(null);
  const add = useAddScale(schoolId);
  const tellOfChange = useTellOfChange();
  const problem = add.error instanceof ProblemError ? add.error : undefined;
  const alike = reply.scales.filter((scale) => scale.kind === kind);
  const bands = alike.find(({ id }) => id === copied)?.bands ?? beginnings[kind][-copied]!;
  const submit = () =>
    void add
      .mutateAsync({
        name,
        kind,
        highestLevel: kind === 'level' ? highestLevel.replace(',', '.') : null,
        isDistrictWide,
        tie,
        fromPeriodId: period.id,
        bands: tie ? [] : [...bands],
      })
      .then(
        // A school's first scale changes the page under this dialog, which must close all the same.
        (after) => {
          onAdded(Math.max(...after.scales.map(({ id }) => id)));
          tellOfChange(`${name} is added.`, after);
        },
        (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
      );
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="A new scale"
      description={`In force from ${period.name} on, once an item or a place uses it.`}
      footer={
        <>
          <Button look="main" disabled={name.trim() === '' || add.isPending} onClick={submit}>
            Add the scale
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <p role="alert" className="min-w-0 flex-1 text-[13px] text-waratah">
            {problem?.besides(shownFields)}
          </p>
        </>
      }
    >
      <div className="space-y-3">
        <TextField
          label="Name"
          value={name}
          maxLength={60}
          fault={problem?.fault('name')}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="grid grid-cols-2 gap-3">
          <SelectField
            label="Kind"
            value={kind}
            onChange={(event) => {
              setKind(event.target.value as ScaleKind);
              setTie(null);
              setCopied(0);
            }}
          >
            {scaleKinds.map((each) => (
              <option key={each} value={each}>
                {kindWords[each]}
              </option>
            ))}
          </SelectField>
          {!tie && (
            <SelectField label="Begin with" value={copied} onChange={(event) => setCopied(Number(event.target.value))}>
              {beginnings[kind].map((own, at) => (
                <option key={-at} value={-at}>
                  {own.map(({ label }) => label).join(', ')}
                </option>
              ))}
              {alike.map((scale) => (
                <option key={scale.id} value={scale.id}>
                  a copy of {scale.name}
                </option>
              ))}
            </SelectField>
          )}
        </div>
        {kind === 'level' && !tie && (
          <TextField
            label="Highest level"
            value={highestLevel}
            fault={problem?.fault('highestLevel')}
            onChange={(event) => setHighestLevel(event.target.value)}
          />
        )}
        <CheckField
          label="for every school of the district"
          checked={isDistrictWide}
          onChange={(event) => setDistrictWide(event.target.checked)}
        />
        <TieFields scales={alike} tie={tie} fault={(field) => problem?.fault(field)} onChange={setTie} />
      </div>
    </Dialog>
  );
}
