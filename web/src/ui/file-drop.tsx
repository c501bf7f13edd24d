import type { LucideIcon } from 'lucide-react';
import { useRef, useState, type DragEvent, type ReactNode } from 'react';
import { Button } from './button';
import { ToChange } from './changeable';
import { Note } from './panel';

interface FileDropProps {
  readonly icon: LucideIcon;
  /** Name of the field, for those who do not see the area. */
  readonly label: string;
  readonly title: string;
  readonly buttonWords: string;
  /** As the file chooser takes it. */
  readonly accept: string;
  readonly mostMegabytes: number;
  /** What to do with a file that is too large. */
  readonly tooLargeWords: string;
  readonly isReading: boolean;
  readonly onFile: (file: File) => void;
  readonly children: ReactNode;
}

/** A place to drop or choose a file; one that is too large is refused at once, before it travels. */
export function FileDrop(props: FileDropProps) {
  const {
    icon: Icon,
    label,
    title,
    buttonWords,
    accept,
    mostMegabytes,
    tooLargeWords,
    isReading,
    onFile,
    children,
  } = props;
  const chooser = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const [tooLarge, setTooLarge] = useState<string>();
  const take = (file: File | undefined) => {
    if (!file) return;
    const isTooLarge = file.size > mostMegabytes * 1024 * 1024;
    setTooLarge(isTooLarge ? file.name : undefined);
    if (!isTooLarge) onFile(file);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files[0]);
  };
  return (
    <ToChange>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex items-center gap-5 rounded-md border-2 border-dashed px-6 py-5 ${isOver ? 'border-eucalypt bg-eucalypt-soft' : 'border-control/50 bg-surface'}`}
      >
        <Icon size={26} className="text-eucalypt" aria-hidden />
        <p className="flex-1">
          <b>{title}</b>
          <span className="block text-[13px] text-quiet">{children}</span>
        </p>
        <Button look="main" disabled={isReading} onClick={() => chooser.current?.click()}>
          {isReading ? 'Reading…' : buttonWords}
        </Button>
        <input
          ref={chooser}
          type="file"
          aria-label={label}
          accept={accept}
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {tooLarge && (
        <Note tone="blocks" title="The file is too large">
          <p>
            {tooLarge} has more than {mostMegabytes} MB. {tooLargeWords}
          </p>
        </Note>
      )}
    </ToChange>
  );
}
