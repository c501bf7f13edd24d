import Papa from 'papaparse';
import { useMemo, useState } from 'react';
import { decimalOrThrow, formatAtLeast, formatDecimal } from '#core/numbers';
import {
  checkStatedEnds,
  endFaultRange,
  readStatedScale,
  settleStatedEnds,
  topOf,
  type EndFault,
  type StatedBand,
  type StatedLine,
} from '#core/scales';
import type { BandBody, ScaleReply } from '#contract/scales';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { showLabel } from '../ui/format';
import { StatedRuler } from './stated-ruler';

interface ImportScaleDialogProps {
  readonly scale: ScaleReply;
  readonly onClose: () => void;
  readonly onTake: (bands: BandBody[]) => void;
}

const example =
  'A\t90\t100\t4.0\tExcellent\nB\t80\t89\t3.0\tGood\nC\t70\t79\t2.0\tSatisfactory\nF\t0\t69\t0.0\tNot passing';

/** Takes in a table of bands from another program. Where it states both ends, gaps and overlaps are settled here first. */
export function ImportScaleDialog({ scale, onClose, onTake }: ImportScaleDialogProps) {
  const [text, setText] = useState('');
  const [settled, setSettled] = useState<readonly StatedBand[] | undefined>();
  const read = useMemo(() => readStatedScale(rowsOf(text)), [text]);
  const stated = settled ?? statedOf(read.lines);
  const top = topOf(scale.highestLevel === null ? null : decimalOrThrow(scale.highestLevel));
  const faults = checkStatedEnds(stated, scale.digits, top);
  const onFile = async (file: File | undefined) => {
    if (!file) return;
    setSettled(undefined);
    setText((await file.text()).replace(/^\uFEFF/, ''));
  };
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Import bands into ${scale.name}`}
      description="Paste a table from a spreadsheet: a label, one end or both, grade points and words in any order, one band in each row."
      footer={
        <>
          <Button
            look="main"
            disabled={read.lines.length === 0 || read.unreadable.length > 0 || faults.length > 0}
            onClick={() => onTake(bandsOf(read.lines, stated, scale))}
          >
            Use {counted(read.lines.length, 'band')} as the draft
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <label className="ml-auto cursor-pointer text-[13px] font-semibold text-eucalypt hover:underline">
            Choose a CSV file
            <input
              type="file"
              accept=".csv,.txt,text/csv,text/plain"
              className="sr-only"
              onChange={(event) => void onFile(event.target.files?.[0])}
            />
          </label>
        </>
      }
    >
      <textarea
        aria-label="Table of bands"
        value={text}
        placeholder={example}
        rows={6}
        spellCheck={false}
        onChange={(event) => {
          setSettled(undefined);
          setText(event.target.value);
        }}
        className="figures w-full rounded-md border border-control bg-surface px-3 py-2 text-[13px]"
      />
      {read.unreadable.map(({ row, reason }) => (
        <p key={row} role="alert" className="mt-1 text-[13px] text-waratah">
          Row {row} has no {reason === 'no-label' ? 'label' : 'number for its lowest value'}.
        </p>
      ))}
      {stated.length > 0 && (
        <div className="mt-4 space-y-3">
          <StatedRuler bands={stated} faults={faults} digits={scale.digits} top={Number(formatDecimal(top))} />
          {faults.length === 0 ? (
            <p className="text-eucalypt">
              The bands leave nothing out and share nothing at {counted(scale.digits, 'decimal')}.
            </p>
          ) : (
            <ul className="space-y-1.5">
              {faults.map((fault, index) => (
                <FaultRow
                  key={index}
                  fault={fault}
                  top={formatAtLeast(top, 0)}
                  onSettle={(keeps) => setSettled(settleStatedEnds(stated, fault, keeps, scale.digits, top))}
                />
              ))}
            </ul>
          )}
        </div>
      )}
    </Dialog>
  );
}

/** Whatever sign stands between the columns, most likely a tab as spreadsheets copy it. */
function rowsOf(text: string): string[][] {
  return Papa.parse<string[]>(text.trim(), { delimitersToGuess: ['\t', ';', ',', '|'] }).data;
}

interface FaultRowProps {
  readonly fault: EndFault;
  readonly top: string;
  readonly onSettle: (keeps: 'upper' | 'lower') => void;
}

function FaultRow({ fault, top, onSettle }: FaultRowProps) {
  const range = endFaultRange(fault);
  const upper = showLabel(fault.upper);
  const lower = showLabel(fault.lower ?? '');
  const says = {
    gap: `${range} lies between ${lower} and ${upper} and has no label.`,
    overlap: `${range} is both ${lower} and ${upper}.`,
    'top-short': `${range} lies above ${upper} and has no label.`,
    'ends-crossed': `${upper} begins above its end.`,
  }[fault.kind];
  const isBetween = fault.kind === 'gap' || fault.kind === 'overlap';
  return (
    <li className="flex items-center gap-2 text-[13px]">
      <span className="min-w-0 flex-1">
        <b className={fault.kind === 'overlap' ? 'text-waratah' : 'text-wattle'}>{says}</b>
      </span>
      {isBetween ? (
        <>
          <Button onClick={() => onSettle('upper')}>
            {fault.kind === 'gap' ? `${lower} reaches up` : `It is ${upper}`}
          </Button>
          <Button onClick={() => onSettle('lower')}>
            {fault.kind === 'gap' ? `${upper} reaches down` : `It is ${lower}`}
          </Button>
        </>
      ) : (
        <Button onClick={() => onSettle('upper')}>
          {fault.kind === 'top-short' ? `${upper} reaches ${top}` : 'Turn its ends round'}
        </Button>
      )}
    </li>
  );
}

/** Lines that state both ends; a table that states only lowest values has none, and nothing to resolve. */
function statedOf(lines: readonly StatedLine[]): StatedBand[] {
  return lines.flatMap(({ label, lowest, highest }) => (highest ? [{ label, lowest, highest }] : []));
}

/** The draft: lowest values as settled; whether a label passes is taken over from the scale where it has that label. */
function bandsOf(lines: readonly StatedLine[], stated: readonly StatedBand[], scale: ScaleReply): BandBody[] {
  const lowestOf = (line: StatedLine) => stated.find(({ label }) => label === line.label)?.lowest ?? line.lowest;
  return lines.map((line) => {
    const known = scale.bands.find(({ label }) => label === line.label);
    const lowest = formatAtLeast(lowestOf(line), scale.digits);
    const passes = known?.passes ?? Number(lowest) > 0;
    return {
      label: line.label,
      lowest,
      points: line.points ? formatAtLeast(line.points, 1) : (known?.points ?? null),
      passes,
      earnsCredit: known?.earnsCredit ?? passes,
      descriptor: line.descriptor || (known?.descriptor ?? ''),
      isOff: false,
    };
  });
}
