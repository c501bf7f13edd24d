import type { FoundReply } from '#contract/audit';

/** What was found, under what it is about. */
export function FoundAbout({ subject, section, sentence }: Pick<FoundReply, 'subject' | 'section' | 'sentence'>) {
  return (
    <>
      <p>
        <b>{subject}</b>
        {section && section !== subject && ` · ${section}`}
      </p>
      <p className="text-quiet">{sentence}</p>
    </>
  );
}
