import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'libsql';
import { createId } from './create-id';

/** Migrations of the database, one for each version; a new one is a further line. */
const VERSIONS: readonly (string | ((database: Sqlite.Database) => void))[] = [
  `create table uploads (
     id text primary key, door text not null, size integer not null, made_at integer not null, facts text not null
   );
   create table conversions (
     upload text primary key, state text not null, reason text, bytes integer, made_at integer not null
   );
   create table posts (
     upload text primary key, id text not null unique, outlet text not null, poster text not null,
     form text not null, state text not null, reasons text not null, measured text, made_at integer not null
   );`,
  `create table masters (
     visitor text not null, fingerprint text not null, upload text not null, used_at integer not null,
     primary key (visitor, fingerprint)
   );
   create table renders (
     id text primary key, visitor text not null, asked text not null, state text not null, fault text, bytes integer,
     made_at integer not null
   );`,
  `create table outlet_posts (
     id text primary key, outlet text not null, poster text not null, key text not null, upload text not null,
     form text not null, state text not null, reasons text not null, measured text, viewed text not null,
     made_at integer not null, unique (outlet, poster, key)
   );
   insert into outlet_posts select id, outlet, poster, upload, upload, form,
     case state when 'up' then 'processing' else state end, reasons, measured, 'null', made_at from posts;
   drop table posts;
   create table grants (
     outlet text not null, kind text not null, id text not null, payload text not null, uid text, grant_id text,
     expires_at integer, primary key (outlet, kind, id)
   );
   create index grants_of on grants (outlet, grant_id);
   create index grants_by_uid on grants (outlet, kind, uid);
   create table sign_ins (
     state text primary key, visitor text not null, outlet text not null, issuer text not null,
     verifier text not null, nonce text not null, back text not null, made_at integer not null
   );
   create table accounts (
     id text primary key, visitor text not null, outlet text not null, subject text not null, facts text not null,
     scopes text not null, state text not null, tokens text not null, made_at integer not null,
     unique (visitor, outlet, subject)
   );
   create table postings (
     id text primary key, visitor text not null, account text not null, upload text not null, state text not null,
     due integer not null, made_at integer not null, asked text not null, facts text not null
   );
   create index postings_due on postings (state, due);
   create index postings_of on postings (visitor, made_at);`,
  `alter table uploads add column whole integer not null default 0;`,
  hashMarks,
  `alter table renders add column starts integer not null default 0;`,
  // A cover is long: it is read when the post goes out, and not with each look at it.
  `alter table postings add column cover text;
   update postings set cover = json_extract(asked, '$.words.cover');
   update postings set asked = json_set(asked, '$.words.cover', null);`,
  `alter table uploads add column folder text;`,
];

export type Database = Sqlite.Database;

/**
 * Opens the server's database in a folder, which is made where it is not there. A damaged one is set aside under
 * another name and begun anew, so that the server starts.
 * @throws where the folder cannot be written.
 */
export function openDatabase(folder: string): Database {
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, 'gusset.db');
  try {
    return openFile(file);
  } catch (error) {
    if (!existsSync(file) || !isDamage(error)) throw error;
    const aside = `${file}.damaged-${Date.now()}`;
    console.error(`The database cannot be read. It is kept as ${aside}, and a new one is begun.`);
    renameSync(file, aside);
    for (const more of ['-wal', '-shm']) rmSync(file + more, { force: true });
    return openFile(file);
  }
}

function openFile(file: string): Database {
  const database = new Sqlite(file);
  try {
    // A record is on the disk before anything that rests on it is done.
    database.exec('pragma journal_mode = wal; pragma synchronous = full; pragma busy_timeout = 250;');
    const [check] = database.pragma('quick_check') as { quick_check: string }[];
    if (check?.quick_check !== 'ok') throw new Error(`damaged: ${check?.quick_check}`);
    const [now] = database.pragma('user_version') as { user_version: number }[];
    for (const [version, change] of VERSIONS.entries()) {
      if (version < (now?.user_version ?? 0)) continue;
      database.exec('begin');
      if (typeof change === 'string') database.exec(change);
      else change(database);
      database.exec(`pragma user_version = ${version + 1}; commit;`);
    }
    return database;
  } catch (error) {
    database.close();
    throw error;
  }
}

/** Until then a browser's mark was what it is called: from now on only hashes of marks are stored. */
function hashMarks(database: Sqlite.Database): void {
  database.exec(
    'create table visitors (mark text primary key, visitor text not null, made_at integer not null)',
  );
  const tables = ['masters', 'renders', 'sign_ins', 'accounts', 'postings'];
  const all = tables.map((table) => `select visitor from ${table}`).join(' union ');
  for (const { visitor: mark } of database.prepare(all).all() as { visitor: string }[]) {
    const visitor = createId();
    for (const table of tables)
      database.prepare(`update ${table} set visitor = ? where visitor = ?`).run([visitor, mark]);
    const hash = createHash('sha256').update(mark).digest('hex');
    database.prepare('insert into visitors values (?, ?, ?)').run([hash, visitor, Date.now()]);
  }
}

const isDamage = (error: unknown): boolean =>
  error instanceof Error && /not a database|malformed|damaged|corrupt/i.test(error.message);
