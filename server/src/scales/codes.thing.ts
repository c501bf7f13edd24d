import { checkCodes, type SpecialCode } from '#core/posting';
import { bodyOfCode, codeFaultFields, codeFaultSentence, codeOfBody, type CodeBody } from '#contract/scales';
import { ThingOf, type Thing } from '#server/changes';
import { ScaleVersionsRepository } from '#server/period-view';
import { Refusal, registrars, type Queries } from '#server/platform';
import { ScalesRepository } from './scales.repository.js';

/** The district's list of codes, kept and changed as one. A code that grades are posted with can be switched off, not removed. */
@ThingOf({ kind: 'codes', called: 'the codes', policy: registrars })
export class CodesThing implements Thing<readonly CodeBody[]> {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly versions: ScaleVersionsRepository,
  ) {}

  async read(queries: Queries, [id]: readonly string[]): Promise<ReadonlyMap<string, readonly CodeBody[]>> {
    return new Map([[id!, (await this.versions.codes(queries)).map(bodyOfCode)]]);
  }

  async check(queries: Queries, values: ReadonlyMap<string, readonly CodeBody[] | null>): Promise<void> {
    for (const bodies of values.values()) await this.checkList(queries, (bodies ?? []).map(codeOfBody));
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly CodeBody[] | null>): Promise<void> {
    for (const codes of values.values()) if (codes) await this.scales.replaceCodes(queries, codes.map(codeOfBody));
  }

  private async checkList(queries: Queries, codes: readonly SpecialCode[]): Promise<void> {
    const faults = checkCodes(codes, await this.scales.allLabels(queries));
    if (faults.length > 0) {
      const fields = faults.map((fault) => ({
        field: `codes.${fault.index}.${codeFaultFields[fault.code]}`,
        detail: codeFaultSentence(fault),
      }));
      throw new Refusal('codes-faulty', {}, fields);
    }
    for (const [name, grades] of await this.scales.gradesByCode(queries)) {
      if (codes.some(({ code }) => code === name)) continue;
      const instead = 'Switch it off instead: what is posted keeps it, and nobody can post it any more.';
      throw new Refusal('in-use', { what: 'The code', name, uses: `${grades} posted grades`, instead });
    }
  }
}
