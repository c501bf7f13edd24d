import { Injectable } from '@nestjs/common';
import { counted } from '#contract/messages';
import type { SheetWordReply, SignOffRequest, SignStandardsRequest } from '#contract/posting';
import { Changes, revisionOf } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { onBehalfInWords, onBehalfOf } from './on-behalf-of.js';
import { refuseWhereNotOpen } from './refuse-where-not-open.js';
import { SheetContextService, type SheetContext } from './sheet-context.service.js';
import { sheetId, type SheetPlace } from './sheet-place.js';
import { SignOffsRepository } from './sign-offs.repository.js';

/** Signs sheets off, and takes that back while the window lets who asks post there. */
@Injectable()
export class SignOffService {
  constructor(
    private readonly transactions: Transactions,
    private readonly contexts: SheetContextService,
    private readonly signOffs: SignOffsRepository,
    private readonly changes: Changes,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found, window-closed, period-sealed, changed-meanwhile where it is signed off already */
  async sign(actor: Actor, { itemId, ...place }: SheetPlace, request: SignOffRequest): Promise<SheetWordReply> {
    await this.signAll(actor, place, { ...request, itemIds: [itemId] });
    return this.transactions.snapshot((queries) => this.word(queries, { ...place, itemId }));
  }

  /** Several sheets of one section in one change. @throws Refusal as for one of them */
  async signAll(
    actor: Actor,
    place: Omit<SheetPlace, 'itemId'>,
    { itemIds, note, outsideWindow }: SignStandardsRequest,
  ): Promise<void> {
    await this.transactions.run(async (queries) => {
      const contexts: SheetContext[] = [];
      for (const itemId of itemIds) contexts.push(await this.contexts.ofSheetOrThrow(queries, { ...place, itemId }));
      for (const context of contexts) refuseWhereNotOpen(actor, context, outsideWindow === true);
      const { item, section } = contexts[0]!;
      const what = contexts.length === 1 ? item.name : counted(contexts.length, 'standard');
      const after = {
        signedBy: actor.personId,
        onBehalfOf: onBehalfOf(actor, section)?.id ?? null,
        signedAt: this.clock.now().toISOString(),
        note: note.trim(),
      };
      await this.changes.make(queries, actor, {
        action: `sign off ${what} of ${section.name}${onBehalfInWords(actor, section)}`,
        edits: itemIds.map((itemId) => ({
          kind: 'sign-off',
          id: sheetId({ ...place, itemId }),
          expected: revisionOf(null),
          after,
        })),
      });
    });
  }

  /** @throws Refusal not-found, sheet-not-signed-off, window-closed, period-sealed */
  async takeBack(actor: Actor, place: SheetPlace): Promise<SheetWordReply> {
    return this.transactions.run(async (queries) => {
      const context = await this.contexts.ofSheetOrThrow(queries, place);
      refuseWhereNotOpen(actor, context, true);
      const [found] = (await this.signOffs.valuesOf(queries, [sheetId(place)])).values();
      if (!found) throw new Refusal('sheet-not-signed-off');
      await this.changes.make(queries, actor, {
        action: `take back the sign-off of ${context.item.name} of ${context.section.name}`,
        edits: [{ kind: 'sign-off', id: sheetId(place), expected: revisionOf(found), after: null }],
      });
      return this.word(queries, place);
    });
  }

  private async word(queries: Queries, place: SheetPlace): Promise<SheetWordReply> {
    const [signedOff] = (await this.signOffs.ofSheets(queries, [sheetId(place)])).values();
    return { signedOff: signedOff ?? null };
  }
}
