import { index, integer, pgTable, text } from 'drizzle-orm/pg-core';
import { schools } from './calendar.js';
import { createdAt, id, instant } from './columns.js';
import { people } from './people.js';

/** Mail that Wombat wrote, whole and as it would go out; the outbox shows it, and keeps each as a file too. */
export const mails = pgTable(
  'mails',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    writtenBy: integer()
      .notNull()
      .references(() => people.id),
    writtenAt: instant().notNull(),
    recipientName: text().notNull(),
    recipientAddress: text().notNull(),
    subject: text().notNull(),
    body: text().notNull(),
    /** What it is about, such as "run 7". */
    about: text().notNull(),
    /** The message in the form of RFC 5322. */
    message: text().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.schoolId)],
);
