import { findingOn, type AuditRule } from '../audit-rule.js';

export const internalNotePublic: AuditRule = {
  id: 'internal-note-public',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Internal note that families would read',
  why: 'A note for colleagues is not written for families, and once they have read it it cannot be taken back.',
  messages: {
    begins: 'The comment begins like a note for colleagues (“{words}”), and families would read it.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { comment, isInternal } = grade.mark;
      const words = isInternal ? undefined : noteForColleagues.exec(comment)?.[1];
      if (words !== undefined) yield findingOn(grade, 'begins', { words });
    }
  },

  fix: {
    says: 'Set the comment to internal',
    mend: ({ mark }) => ({ ...mark, isInternal: true }),
  },
};

/** What people put before what is not for families. */
const noteForColleagues =
  /^\W*(internal|confidential|private|staff only|office only|do not (?:share|print|publish)|not for (?:families|parents|the report)|note to (?:the )?(?:office|registrar|self|counsell?or)|for the (?:office|registrar))\b/iu;
