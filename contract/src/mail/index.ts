/** A letter in the outbox. */
export interface MailReply {
  readonly id: number;
  readonly to: string;
  readonly address: string;
  readonly subject: string;
  readonly body: string;
  /** What it is about, such as "run 7". */
  readonly about: string;
  readonly writtenAt: string;
  readonly writtenBy: string;
}
