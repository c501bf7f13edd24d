import { PackageOpen } from 'lucide-react';
import { useRef, useState, type DragEvent } from 'react';
import { largestZipMegabytes } from '#contract/exchange';
import { ProblemError } from '../shell/api';
import { Button } from '../ui/button';
import { Note } from '../ui/panel';
import { useReadZip } from './queries';

/** Where a zip of rosters is put; what is wrong with it stands below. */
export function PutZip({ onRead }: { onRead: (id: number) => void }) {
  const read = useReadZip();
  const chooser = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const [tooLarge, setTooLarge] = useState<string>();
  const take = (file: File | undefined) => {
    if (!file) return;
    read.reset();
    const isTooLarge = file.size > largestZipMegabytes * 1024 * 1024;
    setTooLarge(isTooLarge ? file.name : undefined);
    if (!isTooLarge) read.mutate(file, { onSuccess: ({ id }) => onRead(id) });
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files[0]);
  };
  return (
    <>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex items-center gap-5 rounded-md border-2 border-dashed px-6 py-5 ${isOver ? 'border-eucalypt bg-eucalypt-soft' : 'border-control/50 bg-surface'}`}
      >
        <PackageOpen size={26} className="text-eucalypt" aria-hidden />
        <p className="flex-1">
          <b>Drop a OneRoster zip here.</b>
          <span className="block text-[13px] text-quiet">
            Version 1.1 or 1.2, bulk or delta, at most {largestZipMegabytes} MB. Nothing is written before you have seen
            every row and taken it in.
          </span>
        </p>
        <Button look="main" disabled={read.isPending} onClick={() => chooser.current?.click()}>
          {read.isPending ? 'Reading…' : 'Choose a zip…'}
        </Button>
        <input
          ref={chooser}
          type="file"
          aria-label="OneRoster zip"
          accept=".zip,application/zip"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {tooLarge && (
        <Note tone="blocks" title="The zip is too large">
          <p>
            {tooLarge} has more than {largestZipMegabytes} MB. Export fewer files, or one school at a time.
          </p>
        </Note>
      )}
      {read.error instanceof ProblemError && (
        <div role="alert">
          <Note tone="blocks" title={read.error.problem.title}>
            <p>{read.error.problem.detail}</p>
          </Note>
        </div>
      )}
    </>
  );
}
