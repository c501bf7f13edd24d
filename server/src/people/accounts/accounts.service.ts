import { Injectable } from '@nestjs/common';
import { mayInAll, normalGrants, schoolsWhere, type Grant } from '#core/access';
import { proposeUsername } from '#core/people';
import { counted } from '#contract/messages';
import type { AccountsReply, ChangeAccountRequest, SendLinksRequest, SentLinksReply } from '#contract/people';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { MailService } from '#server/mail';
import { Clock, Refusal, Transactions, type Actor, type Letter, type Queries } from '#server/platform';
import type { AccountValue } from './account.thing.js';
import { linkLetter } from './link-letter.js';
import { OwnAddress } from './own-address.js';
import { StaffAccountsRepository, type StaffAccount } from './staff-accounts.repository.js';

/** The accounts of a school's staff: who has one, who is invited, and in which role. */
@Injectable()
export class AccountsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly accounts: StaffAccountsRepository,
    private readonly changes: Changes,
    private readonly periods: PeriodsRepository,
    private readonly mail: MailService,
    private readonly clock: Clock,
    private readonly address: OwnAddress,
  ) {}

  ofSchool(schoolId: number): Promise<AccountsReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId));
  }

  /**
   * Writes each a message with a link by which to choose a password: the first one, for whom an account is made where there is
   * none, or another one. Links that were sent before end.
   * @param origin where Wombat is, such as `https://wombat.school.example`
   */
  async sendLinks(
    actor: Actor,
    schoolId: number,
    { personIds }: SendLinksRequest,
    origin: string,
  ): Promise<SentLinksReply> {
    const { letters, ...reply } = await this.transactions.run(async (queries) => {
      const now = this.clock.now();
      const staff = new Map((await this.accounts.ofSchool(queries, schoolId, now)).map((one) => [one.personId, one]));
      const wanted = [...new Set(personIds)].map((id) => {
        const one = staff.get(id);
        if (!one) throw new Refusal('not-found', { what: 'one of the staff', id });
        return one;
      });
      const skipped = wanted.flatMap((one) => {
        const reason = reasonAgainst(actor, one);
        return reason ? [{ personId: one.personId, reason }] : [];
      });
      const told = wanted.filter((one) => !reasonAgainst(actor, one));
      // Whoever has a say in one school alone does not say where the links of all lead.
      if (schoolsWhere(actor.grants, 'manage-access', 'held') === 'all') await this.address.keep(queries, origin);
      await this.makeMissing(queries, actor, schoolId, told);
      const tokens = await this.accounts.giveLinks(
        queries,
        told.map(({ personId }) => personId),
        now,
      );
      const after = await this.read(queries, schoolId);
      const usernames = new Map(after.accounts.map(({ personId, username }) => [personId, username!]));
      const letters = told.map((one): Letter =>
        linkLetter({
          name: one.spokenName,
          address: one.email,
          username: usernames.get(one.personId)!,
          isFirst: !one.hasPassword,
          link: `${origin}/welcome/${tokens.get(one.personId)}`,
        }),
      );
      return { ...after, letters, skipped, sent: letters.length };
    });
    await this.mail.write(actor, schoolId, letters);
    return reply;
  }

  private async makeMissing(
    queries: Queries,
    actor: Actor,
    schoolId: number,
    staff: readonly StaffAccount[],
  ): Promise<void> {
    const missing = staff.filter(({ username }) => username === null);
    if (missing.length === 0) return;
    await this.accounts.hold(queries);
    const taken = new Set(await this.accounts.usernames(queries));
    const edits = missing.map((one): Edit => {
      const username = proposeUsername(one, taken);
      taken.add(username);
      const grants: Grant[] = [{ role: 'teacher', schoolId }];
      const after: AccountValue = { personId: one.personId, grants, isActive: true };
      return { kind: 'account', id: username, after };
    });
    const whom = missing.length === 1 ? missing[0]!.spokenName : counted(missing.length, 'person');
    await this.changes.make(queries, actor, { action: `invite ${whom}`, edits });
  }

  /** Gives somebody another role, or lets them in no more, or again. */
  async change(
    actor: Actor,
    schoolId: number,
    personId: number,
    { revision, grants, isActive }: ChangeAccountRequest,
  ): Promise<AccountsReply> {
    return this.transactions.run(async (queries) => {
      const one = (await this.accounts.ofSchool(queries, schoolId, this.clock.now())).find(
        (each) => each.personId === personId,
      );
      if (one?.username == null) throw new Refusal('not-found', { what: 'account of person', id: personId });
      const after: AccountValue = { personId, grants: normalGrants(grants), isActive };
      await this.refuseElsewhere(queries, actor, one, after.grants);
      const does =
        isActive === one.isActive
          ? `change the roles of ${one.spokenName}`
          : isActive
            ? `let ${one.spokenName} sign in again`
            : `deactivate the account of ${one.spokenName}`;
      await this.changes.make(queries, actor, {
        action: does,
        edits: [{ kind: 'account', id: one.username, expected: revision, after }],
      });
      return this.read(queries, schoolId);
    });
  }

  /** @throws Refusal role-elsewhere, fields-wrong where a school is none */
  private async refuseElsewhere(queries: Queries, actor: Actor, one: StaffAccount, grants: readonly Grant[]) {
    if (!mayInAll(actor, 'manage-access', [...one.grants, ...grants]))
      throw new Refusal('role-elsewhere', { name: one.spokenName });
    const schools = new Set((await this.periods.schools(queries)).map(({ id }) => id));
    const stray = grants.findIndex(({ schoolId }) => schoolId !== null && !schools.has(schoolId));
    if (stray !== -1)
      throw new Refusal('fields-wrong', {}, [{ field: `grants.${stray}.schoolId`, detail: 'a school' }]);
  }

  private async read(queries: Queries, schoolId: number): Promise<AccountsReply> {
    const staff = await this.accounts.ofSchool(queries, schoolId, this.clock.now());
    return {
      accounts: staff.map((one) => ({
        personId: one.personId,
        name: one.name,
        email: one.email,
        state: one.username === null ? 'none' : !one.isActive ? 'deactivated' : one.hasPassword ? 'active' : 'invited',
        username: one.username,
        grants: one.username === null ? null : one.grants,
        revision:
          one.username === null
            ? null
            : revisionOf({ personId: one.personId, grants: one.grants, isActive: one.isActive }),
        linkUntil: one.linkUntil?.toISOString() ?? null,
        lastSignInAt: one.lastSignInAt?.toISOString() ?? null,
      })),
    };
  }
}

/** Who holds a role where the actor has no say gets no link from them: a link is a way into the account. */
function reasonAgainst(actor: Actor, { email, username, isActive, grants }: StaffAccount) {
  if (!mayInAll(actor, 'manage-access', grants)) return 'role-elsewhere' as const;
  if (email.trim() === '') return 'no-address' as const;
  return username !== null && !isActive ? ('deactivated' as const) : undefined;
}
