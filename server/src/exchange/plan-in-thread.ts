import { createHash } from 'node:crypto';
import {
  asHeld,
  asMerged,
  exchangeOutcomes,
  fieldsToKeep,
  isTaking,
  keyOf,
  orgsByUser,
  planExchange,
  rolesByUser,
  schoolsUsing,
  teachersAfter,
  termsOf,
  together,
  type ExchangeFile,
  type ExchangeOutcome,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeState,
  type IsHeld,
  type PlannedExchangeRow,
  type SchoolsUsing,
} from '#core/exchange';
import { readZipOrThrow, type ReadZip } from './exchange-zip.js';
import type { FieldsOfRow } from './roster-fields.repository.js';

/** What a zip is, before it is compared with what is here. */
export interface ZipFacts extends Pick<ReadZip, 'manifest' | 'encodings'> {
  readonly files: readonly ExchangeFile[];
  /** Line items that it has results of, and ids of results that it names by nothing else. */
  readonly lineItemIds: readonly string[];
  readonly resultIds: readonly string[];
}

export interface PlanSummary {
  /** A fingerprint of every decision. */
  readonly previewId: string;
  readonly files: readonly { readonly file: ExchangeFile; readonly rows: number; readonly counts: Counts }[];
}
type Counts = Readonly<Record<ExchangeOutcome, number>>;

/** What the rows of one file need to know of the others when they are written. */
export interface SharedByRows {
  readonly all: Pick<ExchangeRows, 'academicSessions' | 'courses' | 'categories'>;
  readonly using: SchoolsUsing;
  /** The teacher of each class. */
  readonly teachers: ReadonlyMap<string, string>;
  readonly roles: ReadonlyMap<string, readonly string[]>;
  /** The organisations of each person that roles name. */
  readonly orgs: ReadonlyMap<string, readonly string[]>;
}

export interface RowsAsked {
  readonly file?: ExchangeFile;
  readonly outcome?: ExchangeOutcome;
  readonly most: number;
}

/** A zip, what is here, and the plan of the one against the other; lives in a thread of its own, as both may be large. */
export class PlanInThread {
  private readonly here: Partial<Record<ExchangeFile, ExchangeRow[]>> = {};
  private made: Partial<Record<ExchangeFile, ExchangeRow[]>> = {};
  private plan: readonly PlannedExchangeRow[] = [];
  private taking: ReadonlyMap<ExchangeFile, readonly PlannedExchangeRow[]> | undefined;
  private termOf: ReturnType<typeof termsOf> | undefined;
  private rest: readonly FieldsOfRow[] | undefined;

  /** The rows of the zip as they are meant here. */
  private files: ExchangeRows;

  private constructor(private readonly zip: ReadZip) {
    this.files = zip.files;
  }

  /** @throws Refusal as `readZipOrThrow` */
  static async read(bytes: Buffer, name: string): Promise<PlanInThread> {
    return new PlanInThread(await readZipOrThrow(bytes, name));
  }

  facts(): ZipFacts {
    const { manifest, encodings, files } = this.zip;
    const results = files.results ?? [];
    const isIdAlone = (row: ExchangeRow) => !row['lineItemSourcedId'];
    return {
      manifest,
      encodings,
      files: Object.keys(files) as ExchangeFile[],
      lineItemIds: [...new Set(results.filter((row) => !isIdAlone(row)).map((row) => row['lineItemSourcedId']!))],
      resultIds: results.filter(isIdAlone).map((row) => row['sourcedId'] ?? ''),
    };
  }

  /** Lets go of what was here, as it may be otherwise by now. */
  beginAnew(): void {
    for (const file of Object.keys(this.here) as ExchangeFile[]) delete this.here[file];
    this.plan = [];
    this.taking = undefined;
    this.termOf = undefined;
    this.rest = undefined;
  }

  /** Takes a stretch of what is here. */
  takeHere(file: ExchangeFile, rows: readonly ExchangeRow[]): void {
    (this.here[file] ??= []).push(...rows);
  }

  decide(state: ExchangeState): PlanSummary {
    const files = asMerged(this.zip.files, state.merged);
    this.files = files;
    this.plan = planExchange(this.zip.manifest, files, this.here, state);
    const fingerprint = createHash('sha256');
    const counts = new Map<ExchangeFile, Record<ExchangeOutcome, number>>();
    for (const file of Object.keys(files) as ExchangeFile[])
      counts.set(
        file,
        Object.fromEntries(exchangeOutcomes.map((each) => [each, 0])) as Record<ExchangeOutcome, number>,
      );
    for (const { file, line, outcome, changes, was } of this.plan) {
      fingerprint.update(`${file} ${line} ${outcome} ${changes.join(' ')} ${JSON.stringify(was)}\n`);
      counts.get(file)![outcome]++;
    }
    const summary = [...counts].map(([file, own]) => ({ file, rows: (files[file] ?? []).length, counts: own }));
    return { previewId: fingerprint.digest('hex'), files: summary };
  }

  rows({ file, outcome, most }: RowsAsked): { rows: PlannedExchangeRow[]; total: number } {
    const own = this.plan.filter(
      (each) => (file === undefined || each.file === file) && (outcome === undefined || each.outcome === outcome),
    );
    return { rows: own.slice(0, most), total: own.length };
  }

  shared(): SharedByRows {
    const all = this.all();
    const { academicSessions = [], courses = [], categories = [] } = all;
    return {
      all: { academicSessions, courses, categories },
      // also by departments, which are skipped themselves
      using: schoolsUsing({
        ...all,
        orgs: together({ orgs: all.orgs ?? [] }, { orgs: this.files.orgs ?? [] }).orgs!,
      }),
      teachers: teachersAfter(this.here.enrollments ?? [], this.files.enrollments ?? []),
      roles: rolesByUser(all),
      orgs: orgsByUser(all),
    };
  }

  /** What is to be written of a file, a stretch of it, in the words in which it is held here. */
  toWrite(file: ExchangeFile, from: number, most: number): { outcome: ExchangeOutcome; row: ExchangeRow }[] {
    this.termOf ??= termsOf(this.all().academicSessions ?? []);
    this.taking ??= takingByFile(this.plan);
    return (this.taking.get(file) ?? [])
      .slice(from, from + most)
      .map(({ outcome, row }) => ({ outcome, row: asHeld(file, row, this.termOf!) }));
  }

  /** Takes a stretch of what Wombat makes of all that was written. */
  takeMade(file: ExchangeFile, rows: readonly ExchangeRow[]): void {
    (this.made[file] ??= []).push(...rows);
  }

  /** A stretch of what has to be kept beside what Wombat makes of what was written. */
  toKeep(from: number, most: number): FieldsOfRow[] {
    this.rest ??= this.findRest();
    return this.rest.slice(from, from + most);
  }

  private findRest(): FieldsOfRow[] {
    const byKey = new Map<ExchangeFile, ReadonlyMap<string, ExchangeRow>>();
    const ids = new Map<ExchangeFile, ReadonlySet<string>>();
    for (const [file, rows] of Object.entries(this.made) as [ExchangeFile, readonly ExchangeRow[]][]) {
      byKey.set(file, new Map(rows.map((row) => [keyOf(file, row), row])));
      ids.set(file, new Set(rows.map(({ sourcedId }) => sourcedId!)));
    }
    this.made = {};
    const isHeld: IsHeld = (file, id) => ids.get(file)?.has(id) ?? false;
    return this.plan.flatMap(({ file, outcome, row }): FieldsOfRow[] => {
      const key = keyOf(file, row);
      const sourcedId = row['sourcedId']!;
      if (outcome === 'delete' && file === 'roles') return [{ file, key, sourcedId, fields: null }];
      if (outcome !== 'new' && outcome !== 'changed') return [];
      const fields = fieldsToKeep(file, row, byKey.get(file)?.get(key) ?? {}, isHeld);
      // Of a new row there was nothing before.
      return fields || outcome === 'changed' ? [{ file, key, sourcedId, fields: fields ?? null }] : [];
    });
  }

  /** What is here and what the zip brings over it; of what is refused or skipped nothing. */
  private all(): ExchangeRows {
    const came: Partial<Record<ExchangeFile, ExchangeRow[]>> = {};
    for (const { file, outcome, row } of this.plan)
      if (outcome === 'new' || outcome === 'changed') (came[file] ??= []).push(row);
    return together(this.here, came);
  }
}

function takingByFile(plan: readonly PlannedExchangeRow[]): ReadonlyMap<ExchangeFile, readonly PlannedExchangeRow[]> {
  const taking = new Map<ExchangeFile, PlannedExchangeRow[]>();
  for (const each of plan) {
    if (!isTaking(each.outcome)) continue;
    const own = taking.get(each.file) ?? [];
    own.push(each);
    taking.set(each.file, own);
  }
  return taking;
}
