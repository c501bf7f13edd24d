import { Download, Upload } from 'lucide-react';
import { useRef } from 'react';
import { Button } from '../ui/button';
import { ToChange } from '../ui/changeable';

interface ImportButtonProps {
  /** What the field for the file is called. */
  readonly label: string;
  readonly isReading: boolean;
  readonly onFile: (file: File) => void;
}

/** Takes a file whose rows are to be looked at. */
export function ImportButton({ label, isReading, onFile }: ImportButtonProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <ToChange>
      <Button disabled={isReading} onClick={() => file.current?.click()}>
        <Upload size={14} aria-hidden /> Import
      </Button>
      <input
        ref={file}
        type="file"
        aria-label={label}
        accept=".csv,.xlsx,.txt"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) onFile(chosen);
          event.target.value = '';
        }}
      />
    </ToChange>
  );
}

/** The rows as files that can be imported again. */
export function ExportLinks({ address }: { address: string }) {
  return (
    <span className="flex items-center gap-3">
      <Download size={14} aria-hidden />
      {(['csv', 'xlsx'] as const).map((type) => (
        <a
          key={type}
          href={`/api${address}${address.includes('?') ? '&' : '?'}type=${type}`}
          className="font-semibold text-eucalypt hover:underline"
        >
          {type.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
