import { PackageOpen } from 'lucide-react';
import { largestZipMegabytes } from '#contract/exchange';
import { ProblemError } from '../shell/api';
import { FileDrop } from '../ui/file-drop';
import { Note } from '../ui/panel';
import { useReadZip } from './queries';

/** Where a zip of rosters is put; what is wrong with it stands below. */
export function PutZip({ onRead }: { onRead: (id: number) => void }) {
  const read = useReadZip();
  return (
    <>
      <FileDrop
        icon={PackageOpen}
        label="OneRoster zip"
        title="Drop a OneRoster zip here."
        buttonWords="Choose a zip…"
        accept=".zip,application/zip"
        mostMegabytes={largestZipMegabytes}
        tooLargeWords="Export fewer files, or one school at a time."
        isReading={read.isPending}
        onFile={(file) => read.mutate(file, { onSuccess: ({ id }) => onRead(id) })}
      >
        Version 1.1 or 1.2, bulk or delta, at most {largestZipMegabytes} MB. Nothing is written before you have seen
        every row and imported it.
      </FileDrop>
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
