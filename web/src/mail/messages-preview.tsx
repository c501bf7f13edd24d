import { useState, type ReactNode } from 'react';

/** A message that is not written yet. */
export interface PreviewedMessage {
  readonly to: string;
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  /** How many things it is about. */
  readonly count: number;
  /** What is to be known beside the name. */
  readonly note?: string | undefined;
}

/** Messages as they would be written: whom they go to, and the chosen one word for word. */
export function MessagesPreview({ messages, below }: { messages: readonly PreviewedMessage[]; below?: ReactNode }) {
  const [at, setAt] = useState(0);
  const chosen = messages[at] ?? messages[0];
  return (
    <div className="grid grid-cols-[240px_1fr] gap-5 text-[13px]">
      <div className="max-h-[52vh] overflow-auto">
        <ul>
          {messages.map(({ to, address, count, note }, index) => (
            <li key={to + address}>
              <button
                type="button"
                aria-pressed={messages[index] === chosen}
                onClick={() => setAt(index)}
                className="flex w-full justify-between gap-2 rounded px-2 py-1 text-left hover:bg-eucalypt-soft aria-pressed:bg-eucalypt-soft aria-pressed:font-semibold"
              >
                <span>
                  {to}
                  {note && <span className="block text-[12px] font-normal text-quiet">{note}</span>}
                </span>
                <span className="figures">{count}</span>
              </button>
            </li>
          ))}
        </ul>
        {below}
      </div>
      {chosen && (
        <div className="min-w-0">
          <p className="font-semibold">{chosen.subject}</p>
          <p className="text-quiet">{chosen.address}</p>
          <p className="mt-3 whitespace-pre-wrap">{chosen.text}</p>
        </div>
      )}
    </div>
  );
}
