import { z } from 'zod';
import { timestampMs } from '../../src/core/figures/bounded';
import { type Account, accountSchema } from '../../src/core/posting/accounts';
import type { OutletAccount, Scope } from '../../src/core/outlets/outlet-api';
import type { Database } from '../store/database';
import type { Secrets } from '../store/secrets';

const tokensSchema = z.object({
  access: z.string(),
  refresh: z.string().nullable(),
  /** Milliseconds. */
  until: timestampMs(),
  /** New ones were asked for, and no answer came: the outlet may have changed these already. */
  asked: z.literal(true).optional(),
});
/** Access and refresh tokens of an account at its outlet. */
export type Tokens = z.infer<typeof tokensSchema>;

interface Row {
  id: string;
  visitor: string;
  outlet: string;
  subject: string;
  facts: string;
  scopes: string;
  state: string;
  tokens: string;
}

/** Accounts at outlets, by the browser that signed in to them. Their tokens are stored encrypted. */
export class AccountRecords {
  constructor(
    private readonly database: Database,
    private readonly secrets: Secrets,
  ) {}

  of(visitor: string): Account[] {
    const rows = this.database
      .prepare('select * from accounts where visitor = ? order by made_at, id')
      .all([visitor]) as Row[];
    return rows.map(toAccount);
  }

  find(id: string, visitor: string): Account | null {
    const row = this.row(id);
    return row?.visitor === visitor ? toAccount(row) : null;
  }

  /** Keeps an account, in the place of what was known of the same one. @returns what it is called here. */
  keep(
    id: string,
    visitor: string,
    { outlet, account, scopes }: { outlet: string; account: OutletAccount; scopes: readonly Scope[] },
    tokens: Tokens,
  ): string {
    const known = this.database
      .prepare('select id from accounts where visitor = ? and outlet = ? and subject = ?')
      .get([visitor, outlet, account.id]) as { id: string } | undefined;
    const kept = known?.id ?? id;
    this.database
      .prepare(
        `insert into accounts (id, visitor, outlet, subject, facts, scopes, state, tokens, made_at)
         values (?, ?, ?, ?, ?, ?, 'good', ?, ?)
         on conflict (id) do update set
           facts = excluded.facts, scopes = excluded.scopes, state = 'good', tokens = excluded.tokens`,
      )
      .run([
        ...[kept, visitor, outlet, account.id, JSON.stringify(account), JSON.stringify(scopes)],
        ...[this.sealed(kept, tokens), Date.now()],
      ]);
    return kept;
  }

  /** @returns null for one that is not there. @throws where they cannot be decrypted. */
  getTokens(id: string): Tokens | null {
    const row = this.row(id);
    return row ? tokensSchema.parse(JSON.parse(this.secrets.unseal(row.tokens, id))) : null;
  }

  setTokens(id: string, tokens: Tokens): void {
    this.database.prepare('update accounts set tokens = ? where id = ?').run([this.sealed(id, tokens), id]);
  }

  setState(id: string, state: Account['state']): void {
    this.database.prepare('update accounts set state = ? where id = ?').run([state, id]);
  }

  forget(id: string): void {
    this.database.prepare('delete from accounts where id = ?').run([id]);
  }

  getOutlet(id: string): string | null {
    return this.row(id)?.outlet ?? null;
  }

  private sealed(id: string, tokens: Tokens): string {
    return this.secrets.seal(JSON.stringify(tokens), id);
  }

  private row(id: string): Row | undefined {
    return this.database.prepare('select * from accounts where id = ?').get([id]) as Row | undefined;
  }
}

const toAccount = ({ id, outlet, facts, scopes, state }: Row): Account =>
  accountSchema.parse({ id, outlet, account: JSON.parse(facts), scopes: JSON.parse(scopes), state });
