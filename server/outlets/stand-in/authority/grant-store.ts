import type { Adapter, AdapterPayload } from 'oidc-provider';
import type { Database } from '../../../store/database';

/** Where an outlet's authorization server keeps what it gave out, one kind of it. */
export class GrantStore implements Adapter {
  constructor(
    private readonly database: Database,
    private readonly outlet: string,
    private readonly kind: string,
  ) {}

  upsert(id: string, payload: AdapterPayload, expiresIn?: number): Promise<void> {
    this.database
      .prepare(
        `insert or replace into grants (outlet, kind, id, payload, uid, grant_id, expires_at)
         values (?, ?, ?, ?, ?, ?, ?)`,
      )
      .run([
        this.outlet,
        this.kind,
        id,
        JSON.stringify(payload),
        payload.uid ?? null,
        payload.grantId ?? null,
        expiresIn ? Date.now() + expiresIn * 1000 : null,
      ]);
    return Promise.resolve();
  }

  find(id: string): Promise<AdapterPayload | undefined> {
    return Promise.resolve(this.one('id = ?', id));
  }

  findByUid(uid: string): Promise<AdapterPayload | undefined> {
    return Promise.resolve(this.one('uid = ?', uid));
  }

  /** Devices that have no page are not signed in. */
  findByUserCode(): Promise<undefined> {
    return Promise.resolve(undefined);
  }

  consume(id: string): Promise<void> {
    const payload = this.one('id = ?', id);
    if (!payload) return Promise.resolve();
    const consumed = { ...payload, consumed: Math.floor(Date.now() / 1000) };
    this.database
      .prepare('update grants set payload = ? where outlet = ? and kind = ? and id = ?')
      .run([JSON.stringify(consumed), this.outlet, this.kind, id]);
    return Promise.resolve();
  }

  destroy(id: string): Promise<void> {
    this.database
      .prepare('delete from grants where outlet = ? and kind = ? and id = ?')
      .run([this.outlet, this.kind, id]);
    return Promise.resolve();
  }

  revokeByGrantId(grantId: string): Promise<void> {
    this.database.prepare('delete from grants where outlet = ? and grant_id = ?').run([this.outlet, grantId]);
    return Promise.resolve();
  }

  private one(where: string, value: string): AdapterPayload | undefined {
    const row = this.database
      .prepare(
        `select payload from grants
         where outlet = ? and kind = ? and ${where} and (expires_at is null or expires_at > ?)`,
      )
      .get([this.outlet, this.kind, value, Date.now()]) as { payload: string } | undefined;
    return row && (JSON.parse(row.payload) as AdapterPayload);
  }
}

/** Deletes what expired before a moment, at whatever outlet. */
export function sweepGrants(database: Database, now: number): void {
  database.prepare('delete from grants where expires_at < ?').run([now]);
}
