/**
 * Every refusal there is: its HTTP status, its title, and the detail with {words} that the server fills in. A code is
 * permanent; the words may change.
 */
export const problemCodes = {
  'not-signed-in': [401, 'Please sign in', 'Sign in to continue.'],
  'sign-in-failed': [401, 'Sign-in failed', 'No account has this name with this password. Check both and try again.'],
  'passkey-refused': [
    401,
    'This passkey does not fit',
    'It is not known here, or too long was waited. Try again, or sign in with your name and password.',
  ],
  'too-many-tries': [429, 'Too many tries', 'Wait {wait} before you try again.'],
  'not-allowed': [403, 'Not allowed', 'Your role may not do this.'],
  'token-missing': [
    403,
    'The page is out of date',
    'Reload the page and try again; what you typed is kept where it can be.',
  ],
  'not-found': [404, 'Not found', 'There is no {what} with number {id}.'],
  'no-longer-fits': [
    409,
    'This no longer fits',
    'What it refers to does not exist, or someone else added, removed or used it meanwhile. Load the page again.',
  ],
  'body-too-large': [413, 'Too much at once', 'Send less at a time.'],
  'fields-wrong': [422, 'Something needs correcting', 'The marked fields say what is wrong and what would be right.'],
  'scale-faulty': [422, 'The scale cannot be used like this', 'The marked bands say what is wrong.'],
  'scale-changed': [
    409,
    'Someone else saved this scale',
    'Version {current} is saved; your draft began from version {yours}. Your draft is kept: compare and save again.',
  ],
  'set-up-changed': [
    409,
    'Someone else changed this',
    'The {what} changed since you opened them. Your changes are kept on this page: look at what is saved now and save again.',
  ],
  'changed-meanwhile': [
    409,
    'Someone else changed this first',
    '{who} changed {what} since you opened it. What you typed is kept here: look at what is saved now and save again.',
  ],
  'moved-on': [409, 'This cannot be undone any more', '{reasons}.'],
  'cannot-undo': [409, 'This cannot be undone', 'Nothing here knows how to undo “{action}”.'],
  'cannot-bring-back': [
    409,
    'It cannot be brought back',
    'Something that “{action}” rests on no longer exists. Undo its removal first, or make the change again.',
  ],
  'in-use': [409, '{what} is in use', '{name} is used by {uses}. {instead}'],
  'scale-missing': [
    409,
    'No scale is in force',
    'No scale is in force for {course}, so a percentage would get no label. Choose one under Scales, Where used.',
  ],
  'scale-tied': [409, 'This scale follows another', '{name} is tied to {other}: change that one, or untie it first.'],
  'tie-cycle': [422, 'The scales would follow each other', '{name} cannot follow {other}, which follows {name}.'],
  'scale-locked': [409, 'The scale is locked above', '{place} uses {scale} and locks it for everything below.'],
  'codes-faulty': [422, 'The codes cannot be used like this', 'The marked codes say what is wrong.'],
  'item-faulty': [422, 'The item cannot be used like this', '{reason}'],
  'calendar-faulty': [422, 'The calendar cannot be used like this', '{reason}'],
  'year-exists': [409, 'That year is there already', '{name} is already in the calendar of {school}.'],
  'courses-faulty': [
    422,
    'Some courses need correcting',
    '{count, plural, one {# cell} other {# cells}} cannot be accepted. Nothing was saved.',
  ],
  'people-faulty': [
    422,
    'Some people need correcting',
    '{count, plural, one {# cell} other {# cells}} cannot be accepted. Nothing was saved.',
  ],
  'sections-faulty': [
    422,
    'Some sections need correcting',
    '{count, plural, one {# cell} other {# cells}} cannot be accepted. Nothing was saved.',
  ],
  'section-number-taken': [409, 'That number is taken', '{name} has another section {number} in the same period.'],
  'section-graded': [
    409,
    'The section has grades',
    '{name} keeps its course and its period, as grades are posted in it. Make another section instead.',
  ],
  'section-strange': [
    422,
    'The section cannot be used like this',
    'The course and the period of a section are of one school, and one of the staff teaches it.',
  ],
  'columns-of-sections-missing': [
    422,
    'No sections found',
    '{name} has no row that names a column for the course and one for the number of the section.',
  ],
  'enrollments-faulty': [
    422,
    'Some enrollments need correcting',
    '{count, plural, one {# cell} other {# cells}} cannot be accepted. Nothing was saved.',
  ],
  'move-built-on': [
    409,
    'There is more there by now',
    'Grades or scores that went along were changed since, or their period was sealed. Move the students back as a move of its own.',
  ],
  'cannot-move': [409, 'Not everyone can move', 'Something stands in the way of {count}; the preview says what.'],
  'cannot-merge': [409, 'These two cannot be merged', 'Something stands in the way; the preview says what.'],
  'enrolled-already': [409, 'That student is enrolled already', '{student} has a seat in that section already.'],
  'columns-of-enrollments-missing': [
    422,
    'No enrollments found',
    '{name} has no row that names a column for the section and one for the student.',
  ],
  'columns-of-attendance-missing': [
    422,
    'No attendance found',
    '{name} has no row that names columns for the section, the student, the day and the attendance.',
  ],
  'attendance-faulty': [
    422,
    'Some rows need correcting',
    '{count, plural, one {# cell} other {# cells}} cannot be accepted. Nothing was saved.',
  ],
  'mending-changed': [
    409,
    'Something moved since you looked',
    'Grades changed after the preview. Nothing was set: look at it again.',
  ],
  'last-registrar': [
    409,
    'The last registrar stays',
    'Without {name} no registrar could sign in. Give somebody else the role first.',
  ],
  'only-seeing': [
    403,
    'You are only looking',
    'You see what {name} sees, and change nothing meanwhile. Go back to your own view first.',
  ],
  'role-elsewhere': [
    403,
    'Somebody else has a say there',
    '{name} holds or would hold a role where you have no say. Ask a registrar of the whole district.',
  ],
  'link-gone': [
    404,
    'This link cannot be used',
    'It was used already, or has expired, or a newer one was sent. Ask for another one where you sign in, or ask your registrar.',
  ],
  'username-taken': [409, 'That sign-in name is taken', '{username} is the sign-in name of somebody else.'],
  'number-taken': [409, 'That number is taken', '{name} cannot have the number {number}: another student has it.'],
  'columns-of-names-missing': [
    422,
    'No names found',
    '{name} has no row that names a column for the family name and one for the given name.',
  ],
  'column-code-missing': [
    422,
    'No course code found',
    '{name} has no row that names a column for the code of the course.',
  ],
  'grades-changed': [
    409,
    'Someone else saved some of these grades',
    '{count} of your rows changed since you opened the sheet. Nothing was saved; the rows show what differs.',
  ],
  'platform-exists': [409, 'That name is taken', 'The school has a platform called {name} already.'],
  'class-joined-twice': [
    409,
    'Two classes cannot be one section',
    '{section} would be joined to "{titles}". Ignore one of them, or join it to another section. Nothing was saved.',
  ],
  'exchange-sealed': [
    409,
    'A period was sealed meanwhile',
    'A period was sealed while the rows were being written, so the rest has to be compared with it again.',
  ],
  'exchange-unreadable': [422, 'The zip cannot be read', '{name}: {reason}.'],
  'platform-refused': [502, 'The platform refused it', '{problem}'],
  'weights-elsewhere': [
    409,
    'These weights cannot be accepted',
    'Only weights that differ, of groups that are all matched and that add up to 100, can be accepted. Look at them again.',
  ],
  'platform-unread': [
    409,
    'Not read yet',
    '{name} was not read yet. Read it under Platforms, and join its classes first.',
  ],
  'run-under-way': [
    409,
    'A run is under way',
    '{name} is being worked on by another run. Wait for it, or stop it first.',
  ],
  'run-undo-order': [
    409,
    'A later run comes first',
    'Run {later} wrote over this one. Undo that one first, so that nothing of either is left.',
  ],
  'run-elsewhere': [409, 'The run has moved on', 'As it stands now it cannot be {does}. Look at it again.'],
  'policy-faulty': [422, 'The policy cannot be used like this', '{reason}'],
  'categories-faulty': [422, 'The categories cannot be used like this', 'The marked categories say what is wrong.'],
  'assignment-faulty': [422, 'The assignment cannot be used like this', 'The marked fields say what is wrong.'],
  'scores-faulty': [
    422,
    'Some scores need correcting',
    '{count, plural, one {# score} other {# scores}} cannot be accepted. Nothing was saved.',
  ],
  'scores-changed': [
    409,
    'Someone else saved some of these scores',
    '{count} of your scores changed since you opened the grade book. Nothing was saved; your changes are kept here.',
  ],
  'period-sealed': [409, '{period} is sealed', 'A sealed grade changes only by amendment.'],
  'window-closed': [409, 'The posting window is not open', 'For {item} in {period} it is {state}.'],
  'sheet-signed-off': [
    409,
    'This sheet is signed off',
    '{by} signed it off. Take the sign-off back first, then change grades.',
  ],
  'sheet-not-signed-off': [409, 'This sheet is not signed off', 'Someone else took the sign-off back meanwhile.'],
  'request-answered': [409, 'This request was answered', '{by} answered it meanwhile.'],
  'reminders-changed': [
    409,
    'The messages changed',
    'Something was posted since you looked at them. Look at them again, then send.',
  ],
  'file-kind': [415, 'No table', '{name} is {found}; a CSV or XLSX export is needed. {hint}'],
  'file-empty': [422, 'The file is empty', '{name} has no rows.'],
  'file-too-large': [
    413,
    'The file is too large',
    'At most {limit} MB can be read; export one section or one period at a time.',
  ],
  'workbook-too-large': [
    413,
    'The workbook is too large',
    'A workbook may have at most {limit} MB; save it as CSV, which may be larger.',
  ],
  'file-no-columns': [
    422,
    'No table found',
    '{name} has no row that names at least two columns, such as a student number and a total.',
  ],
  'file-unpacks-too-large': [
    413,
    'The file is too large when unzipped',
    '{name} is packed so that it would unpack to more than {megabytes} MB. Export one section or one period at a time.',
  ],
  'file-unreadable': [422, 'The file cannot be read', 'Row {row}: {reason}.'],
  'columns-missing': [
    422,
    'Columns still to be chosen',
    'Choose the id column, a grade column and the section before accepting.',
  ],
  'work-broken-off': [
    500,
    'Something went wrong',
    'It stopped because of a fault in Wombat, and nothing was written; the log of the server has it.',
  ],
  'preview-changed': [
    409,
    'The preview is out of date',
    'Something changed since you looked. Nothing was written; the preview is up to date now.',
  ],
  'import-outdated': [409, 'The preview is out of date', 'Something changed here between the preview and the import.'],
  'import-done': [409, 'Not now', 'This file {state}.'],
  'nothing-to-write': [409, 'Nothing to write', 'No value of the file is new or changed.'],
  'audit-needed': [409, 'An audit is needed first', 'Run the audit of {period} before sealing it.'],
  'audit-outdated': [
    409,
    'The audit is out of date',
    'Grades changed after the audit of {at}. Run it again before sealing.',
  ],
  'audit-incomplete': [
    409,
    'A rule of the audit could not run',
    'The audit of {period} is not whole: {rule} could not run ({problem}). Run it again; if it fails again, tell whoever keeps Wombat.',
  ],
  'certificate-needed': [
    409,
    'The audit is not closed',
    'Close the audit of {period} with a certificate before sealing it.',
  ],
  'certificate-broken': [
    409,
    'The certificate no longer holds',
    'The certificate of {period} no longer holds, as {broken}. Audit again and issue another one.',
  ],
  'findings-block': [
    409,
    'Findings block the seal',
    '{count, plural, one {# finding} other {# findings}} must be resolved before {period} can be sealed.',
  ],
  'courses-block': [
    409,
    'Findings are left in these courses',
    '{count, plural, one {# finding blocks} other {# findings block}} these courses. Mend each or let it stand, then certify them.',
  ],
  'already-sealed': [409, 'Already sealed', '{period} was sealed on {at}.'],
  'body-unreadable': [400, 'The request could not be read', '{reason}'],
  unexpected: [500, 'Something went wrong here', 'Nothing was saved. The server noted it as {reference}.'],
} as const satisfies Record<string, readonly [status: number, title: string, detail: string]>;

export type ProblemCode = keyof typeof problemCodes;

/** The words in braces of a message. */
type Words<Message extends string> = Message extends `${string}{${infer Word}}${infer Rest}`
  ? (Word extends `#${string}` ? never : Word extends `${infer Name},${string}` ? Name : Word) | Words<Rest>
  : never;

/** What the words of a problem stand for: a refusal that lacks one does not compile. */
export type ProblemData<Code extends ProblemCode> = Readonly<
  Record<Words<(typeof problemCodes)[Code][1]> | Words<(typeof problemCodes)[Code][2]>, string | number>
>;
