import { formatMessage } from './format-message.js';

const things = {
  account: '{count, plural, one {# account} other {# accounts}}',
  assignment: '{count, plural, one {# assignment} other {# assignments}}',
  audit: '{count, plural, one {# audit} other {# audits}}',
  band: '{count, plural, one {# band} other {# bands}}',
  blank: '{count, plural, one {# blank} other {# blanks}}',
  break: '{count, plural, one {# break} other {# breaks}}',
  'calculation of its own': '{count, plural, one {# calculation of its own} other {# calculations of its own}}',
  calendar: '{count, plural, one {# calendar} other {# calendars}}',
  category: '{count, plural, one {# category} other {# categories}}',
  certificate: '{count, plural, one {# certificate} other {# certificates}}',
  cell: '{count, plural, one {# cell} other {# cells}}',
  class: '{count, plural, one {# class} other {# classes}}',
  'class or name': '{count, plural, one {# class or name} other {# classes and names}}',
  code: '{count, plural, one {# code} other {# codes}}',
  'computed grade': '{count, plural, one {# computed grade} other {# computed grades}}',
  'computed percentage': '{count, plural, one {# computed percentage} other {# computed percentages}}',
  comment: '{count, plural, one {# comment} other {# comments}}',
  condition: '{count, plural, one {# condition} other {# conditions}}',
  course: '{count, plural, one {# course} other {# courses}}',
  'course default': '{count, plural, one {# course default} other {# course defaults}}',
  'course list': '{count, plural, one {# course list} other {# course lists}}',
  day: '{count, plural, one {# day} other {# days}}',
  decimal: '{count, plural, one {# decimal} other {# decimals}}',
  department: '{count, plural, one {# department} other {# departments}}',
  enrollment: '{count, plural, one {# enrollment} other {# enrollments}}',
  entry: '{count, plural, one {# entry} other {# entries}}',
  exception: '{count, plural, one {# exception} other {# exceptions}}',
  fault: '{count, plural, one {# fault} other {# faults}}',
  file: '{count, plural, one {# file} other {# files}}',
  finding: '{count, plural, one {# finding} other {# findings}}',
  grade: '{count, plural, one {# grade} other {# grades}}',
  'GPA setting': '{count, plural, one {the GPA settings} other {the GPA settings}}',
  'grade book': '{count, plural, one {# grade book} other {# grade books}}',
  'grade sheet': '{count, plural, one {# grade sheet} other {# grade sheets}}',
  'group name': '{count, plural, one {# group name} other {# group names}}',
  'group of learning platforms':
    '{count, plural, one {# group of learning platforms} other {# groups of learning platforms}}',
  hour: '{count, plural, one {# hour} other {# hours}}',
  item: '{count, plural, one {# item} other {# items}}',
  'joined class': '{count, plural, one {# joined class} other {# joined classes}}',
  label: '{count, plural, one {# label} other {# labels}}',
  'list of enrollments': '{count, plural, one {# list of enrollments} other {# lists of enrollments}}',
  'list of sections': '{count, plural, one {# list of sections} other {# lists of sections}}',
  'list of people': '{count, plural, one {# list of people} other {# lists of people}}',
  'list of rules': '{count, plural, one {# list of rules} other {# lists of rules}}',
  'last date': '{count, plural, one {# last date} other {# last dates}}',
  'learning platform': '{count, plural, one {# learning platform} other {# learning platforms}}',
  level: '{count, plural, one {# level} other {# levels}}',
  'merged record': '{count, plural, one {# merged record} other {# merged records}}',
  move: '{count, plural, one {# move} other {# moves}}',
  match: '{count, plural, one {# match} other {# matches}}',
  matter: '{count, plural, one {# matter} other {# matters}}',
  message: '{count, plural, one {# message} other {# messages}}',
  note: '{count, plural, one {# note} other {# notes}}',
  absence: '{count, plural, one {# absence} other {# absences}}',
  minute: '{count, plural, one {# minute} other {# minutes}}',
  'more fact': '{count, plural, one {# more fact} other {# more facts}}',
  'more thing': '{count, plural, one {# more thing} other {# more things}}',
  'other finding': '{count, plural, one {# other finding} other {# other findings}}',
  override: '{count, plural, one {# override} other {# overrides}}',
  'pasted column': '{count, plural, one {# pasted column} other {# pasted columns}}',
  'pasted row': '{count, plural, one {# pasted row} other {# pasted rows}}',
  percent: '{count, plural, one {# percentage} other {# percentages}}',
  period: '{count, plural, one {# period} other {# periods}}',
  place: '{count, plural, one {# place} other {# places}}',
  'place where a scale begins':
    '{count, plural, one {# place where a scale begins} other {# places where a scale begins}}',
  'place where it is in force':
    '{count, plural, one {# place where it is in force} other {# places where it is in force}}',
  plan: '{count, plural, one {# plan} other {# plans}}',
  person: '{count, plural, one {# person} other {# people}}',
  'platform label': '{count, plural, one {# platform label} other {# platform labels}}',
  policy: '{count, plural, one {# policy} other {# policies}}',
  'posted grade': '{count, plural, one {# posted grade} other {# posted grades}}',
  proposal: '{count, plural, one {# proposal} other {# proposals}}',
  quarter: '{count, plural, one {# quarter} other {# quarters}}',
  receipt: '{count, plural, one {# receipt} other {# receipts}}',
  'proposed date': '{count, plural, one {# proposed date} other {# proposed dates}}',
  register: '{count, plural, one {# register} other {# registers}}',
  reminder: '{count, plural, one {# reminder} other {# reminders}}',
  request: '{count, plural, one {# request} other {# requests}}',
  'role of an account': '{count, plural, one {# role of an account} other {# roles of accounts}}',
  row: '{count, plural, one {# row} other {# rows}}',
  rule: '{count, plural, one {# rule} other {# rules}}',
  run: '{count, plural, one {# run} other {# runs}}',
  save: '{count, plural, one {# save} other {# saves}}',
  scale: '{count, plural, one {# scale} other {# scales}}',
  school: '{count, plural, one {# school} other {# schools}}',
  score: '{count, plural, one {# score} other {# scores}}',
  standard: '{count, plural, one {# standard} other {# standards}}',
  'stock comment': '{count, plural, one {# stock comment} other {# stock comments}}',
  'sign-off': '{count, plural, one {# sign-off} other {# sign-offs}}',
  'sealed period': '{count, plural, one {# sealed period} other {# sealed periods}}',
  seat: '{count, plural, one {# seat} other {# seats}}',
  second: '{count, plural, one {# second} other {# seconds}}',
  'setting of the audit': '{count, plural, one {# setting of the audit} other {# settings of the audit}}',
  section: '{count, plural, one {# section} other {# sections}}',
  semester: '{count, plural, one {# semester} other {# semesters}}',
  student: '{count, plural, one {# student} other {# students}}',
  teacher: '{count, plural, one {# teacher} other {# teachers}}',
  term: '{count, plural, one {# term} other {# terms}}',
  thing: '{count, plural, one {# thing} other {# things}}',
  time: '{count, plural, one {# time} other {# times}}',
  'total column': '{count, plural, one {# total column} other {# total columns}}',
  'total column of learning platforms':
    '{count, plural, one {# total column of learning platforms} other {# total columns of learning platforms}}',
  trimester: '{count, plural, one {# trimester} other {# trimesters}}',
  'transcript entry': '{count, plural, one {# entry of a transcript} other {# entries of a transcript}}',
  value: '{count, plural, one {# value} other {# values}}',
  'version of a scale': '{count, plural, one {# version of a scale} other {# versions of a scale}}',
  'signed-off sheet': '{count, plural, one {# signed-off sheet} other {# signed-off sheets}}',
  waiver: '{count, plural, one {# waiver} other {# waivers}}',
  warning: '{count, plural, one {# warning} other {# warnings}}',
  week: '{count, plural, one {# week} other {# weeks}}',
  year: '{count, plural, one {# year} other {# years}}',
  sheet: '{count, plural, one {# sheet} other {# sheets}}',
  zip: '{count, plural, one {# zip} other {# zips}}',
} as const;

const verbs = {
  blocks: '{count, plural, one {blocks} other {block}}',
  counts: '{count, plural, one {counts} other {count}}',
  does: '{count, plural, one {does} other {do}}',
  has: '{count, plural, one {has} other {have}}',
  holds: '{count, plural, one {holds} other {hold}}',
  is: '{count, plural, one {is} other {are}}',
  lies: '{count, plural, one {lies} other {lie}}',
  matches: '{count, plural, one {matches} other {match}}',
  needs: '{count, plural, one {needs} other {need}}',
  reports: '{count, plural, one {reports} other {report}}',
  sets: '{count, plural, one {sets} other {set}}',
  teaches: '{count, plural, one {teaches} other {teach}}',
  waits: '{count, plural, one {waits} other {wait}}',
  was: '{count, plural, one {was} other {were}}',
} as const;

export type CountedThing = keyof typeof things;
export type CountedVerb = keyof typeof verbs;

/**
 * How many there are of something.
 *
 * @example counted(1, 'course') // '1 course'
 * @example counted(1200, 'entry') // '1,200 entries'
 */
export function counted(count: number, thing: CountedThing): string {
  return formatMessage(things[thing], { count });
}

/**
 * The verb that goes with so many.
 *
 * @example agreeing(3, 'has') // 'have'
 */
export function agreeing(count: number, verb: CountedVerb): string {
  return formatMessage(verbs[verb], { count });
}
