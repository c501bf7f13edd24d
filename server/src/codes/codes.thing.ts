import { checkCodes, type SpecialCode } from '#core/codes';
import { bodyOfCode, codeFaultFields, codeFaultSentence, codeOfBody, type CodeBody } from '#contract/codes';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type Queries } from '#server/platform';
import { counted } from '#contract/messages';
import { CodesRepository } from './codes.repository.js';

/** The district's list of codes, kept and changed as one. A code that grades are posted with can be switched off, not removed. */
@ThingOf({ kind: 'codes', called: 'the codes', change: 'change-shared-set-up', see: 'read-set-up', at: () => null })
export class CodesThing implements Thing<readonly CodeBody[]> {
  constructor(private readonly codes: CodesRepository) {}

  async read(queries: Queries, [id]: readonly string[]): Promise<ReadonlyMap<string, readonly CodeBody[]>> {
    return new Map([[id!, (await this.codes.all(queries)).map(bodyOfCode)]]);
  }

  async check(queries: Queries, values: ReadonlyMap<string, readonly CodeBody[] | null>): Promise<void> {
    for (const bodies of values.values()) await this.checkList(queries, (bodies ?? []).map(codeOfBody));
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly CodeBody[] | null>): Promise<void> {
    for (const codes of values.values()) if (codes) await this.codes.replace(queries, codes.map(codeOfBody));
  }

  private async checkList(queries: Queries, codes: readonly SpecialCode[]): Promise<void> {
    const faults = checkCodes(codes, await this.codes.allLabels(queries));
    if (faults.length > 0) {
      const fields = faults.map((fault) => ({
        field: `codes.${fault.index}.${codeFaultFields[fault.code]}`,
        detail: codeFaultSentence(fault),
      }));
      throw new Refusal('codes-faulty', {}, fields);
    }
    for (const [name, grades] of await this.codes.gradesByCode(queries)) {
      if (codes.some(({ code }) => code === name)) continue;
      const instead = 'Switch it off instead: posted grades keep it, and it cannot be posted any more.';
      throw new Refusal('in-use', { what: 'The code', name, uses: counted(grades, 'posted grade'), instead });
    }
  }
}
