/** A word of the interface, and what it means there. */
type Word = readonly [word: string, means: string];

const band: Word = [
  'Band',
  'a label and the lowest value that it takes; its highest value is just below the next band.',
];
const code: Word = ['Code', 'what is posted in place of a grade, such as exempt, incomplete or withdrawn.'];
const composite: Word = ['Composite', 'an item that is worked out of others, such as two quarters and an exam.'];
const section: Word = ['Section', 'a course as it is taught to one group.'];
const match: Word = ['Match', 'a class, person, group or column of a learning platform, joined to ours.'];
const run: Word = [
  'Run',
  'grades carried over from a learning platform: planned first, then carried out, and undone if need be.',
];
const item: Word = ['Report item', 'one thing that a report card shows, such as the quarter grade.'];
const finding: Word = ['Finding', 'what a rule of the audit found about a grade, a student, a section or a course.'];
const certificate: Word = [
  'Certificate',
  'what closes the audit of a period: what was checked, by which rules, and what was let stand and why.',
];
const seal: Word = [
  'Seal',
  'to copy the grades of a period onto the transcripts, where they change no more by themselves.',
];
const workings: Word = ['Workings', 'how a number came about, line by line.'];
const override: Word = ['Override', 'a posted percentage that differs from what was computed.'];
const signOff: Word = [
  'Sign-off',
  'a teacher’s word that a sheet is finished; its grades stay as they are until it is taken back.',
];
const onBehalf: Word = ['On behalf', 'posted by somebody else for the teacher of a section; the record says so.'];
const window: Word = ['Window', 'the days on which an item may be posted, and the grace after them.'];

/** The words of each place that somebody new may not know. */
const wordsOf: Readonly<Record<string, readonly Word[]>> = {
  today: [window, finding, seal],
  scales: [
    band,
    ['Version', 'a scale as it is used from a period on; grades keep the one that they were posted under.'],
    ['Locked', 'a scale that narrower places cannot replace by their own.'],
    code,
  ],
  calendar: [
    window,
    ['Grace', 'time after a window closes in which grades are still posted.'],
    ['60 % date', 'the day by which 60 % of the period is over; student aid rests on it.'],
  ],
  people: [
    ['Preferred name', 'the given name that somebody goes by; transcripts have the legal one.'],
    ['Kept by', 'whether a roster brought somebody. Its next import writes what it says of them again.'],
    ['Listed twice', 'two records that may be of one person. Merging them keeps all that hangs on both.'],
  ],
  'report-items': [
    item,
    composite,
    ['Exception', 'a course that reports an item, or does not, whatever the rules say.'],
  ],
  courses: [
    ['Inherited', 'a fact that the course leaves to its department or school; it stands in grey.'],
    ['Level', 'regular, honours or college: it decides the weight of a grade in the weighted GPA.'],
  ],
  sections: [
    section,
    ['Seats', 'how many students there is room for. More can be enrolled; the headline says where.'],
    ['Merge', 'the students of several sections sit in one of them from a day on; the others end.'],
    ['Split', 'some students of a section get a section of their own, with the same assignments.'],
  ],
  enrollments: [
    ['Withdrawn', 'left the section: no grade is posted from that day on, and a last date may be needed.'],
    ['Move', 'to leave a section for another one from a day on; grades of open periods and scores go along.'],
  ],
  calculation: [
    ['Weight', 'what a category counts for among those that have scores.'],
    ['Dropped', 'left out of the sum: of all choices the one that is best for the student.'],
    ['Flag', 'missing, late, incomplete, exempt, absent or collected, noted on a score.'],
    workings,
  ],
  platforms: [
    ['Learning platform', 'where teachers keep assignments and scores; Wombat reads it over the network.'],
    match,
  ],
  matches: [
    match,
    ['Confidence', 'how likely a proposal is, with its reasons. Nothing is joined that nobody accepted.'],
  ],
  runs: [run, ['Same', 'a row that is here already as the platform has it; nothing is written.']],
  files: [['Preview', 'what accepting a file would write, row by row, before anything is written.']],
  board: [signOff, ['Late', 'the window of a sheet has closed and it is not signed off.'], override, window],
  attendance: [
    ['Register', 'a day of a section: taken, or not. A taken one holds only who was not there, or came late.'],
    ['Last date of attendance', 'proposed on grade sheets from registers, and never put in by itself.'],
  ],
  receipts: [['Receipt', 'what one save changed, and nothing else.'], onBehalf],
  standards: [
    ['Standard', 'what a student can do, graded by itself.'],
    ['Computed', 'the small figure: what the grade book comes to.'],
    signOff,
  ],
  'grade-sheets': [
    signOff,
    onBehalf,
    override,
    code,
    ['Last date', 'the last day on which the student attended; some codes need it.'],
    workings,
  ],
  'grade-books': [
    ['Collected', 'handed in and not scored yet; it does not count.'],
    ['Extra', 'points that only add.'],
    workings,
  ],
  findings: [
    finding,
    certificate,
    ['Blocks', 'a finding with which the period cannot be sealed.'],
    ['Waiver', 'lets a finding stand, for a reason and under a name, until a day or until it says something else.'],
    ['Whose', 'who sees to a finding; what is said of it stays beside it from audit to audit.'],
    ['Threshold', 'where a rule begins to find something; a school may say so, and which courses a rule leaves alone.'],
  ],
  seal: [seal, certificate],
  students: [
    ['GPA', 'grade point average: points times credits, over credits.'],
    ['In progress', 'grades of periods that are not sealed yet.'],
    workings,
  ],
  exchange: [['Roster', 'the list of courses, sections and people of the student information system.']],
  log: [['Chain', 'each entry carries a mark of the one before: one that was altered or removed shows.']],
  accounts: [['See as', 'to look at what somebody else sees; nothing can be changed meanwhile.']],
};

/** The words of the place at an address such as "/school/1/period/4/runs/7". */
export function wordsAt(pathname: string): readonly Word[] {
  return wordsOf[pathname.split('/')[5] ?? ''] ?? [];
}
