import type { OutletAccount } from '../../../../src/core/outlets/outlet-api';

/** Who has accounts at the outlets' stand-ins; all are made up. */
interface Holder extends OutletAccount {
  /** Name that the person signs in with. */
  login: string;
  /** Colours of its picture. */
  colours: [string, string];
}

/** Password of every demo person: the sign-in page states it. */
export const PASSWORD = 'kite-day';

const PEOPLE: readonly Omit<Holder, 'picture'>[] = [
  { id: 'odlin', login: 'odlin', name: 'Odlin Marrable', kind: 'person', colours: ['#2f5d50', '#f2dfb4'] },
  {
    id: 'windle',
    login: 'windle',
    name: 'Kite Day at Windle Bay',
    kind: 'page',
    colours: ['#28507a', '#f6c445'],
  },
  { id: 'fen', login: 'fen', name: 'Fen Tarrowby', kind: 'person', colours: ['#7a3b2e', '#cfe3e8'] },
];

const picturePath = (id: string): string => `/pictures/${id}.svg`;

/** Whose login it is. */
export const findHolder = (login: string): OutletAccount | null => {
  const found = PEOPLE.find((person) => person.login === login);
  return found ? findOutletAccount(found.id) : null;
};

/** An account as others see it. */
export function findOutletAccount(id: string): OutletAccount | null {
  const found = PEOPLE.find((person) => person.id === id);
  return found ? { id, name: found.name, kind: found.kind, picture: picturePath(id) } : null;
}

/** The logins that the sign-in page offers. */
export const LOGINS = PEOPLE.map(({ login, name, kind }) => ({ login, name, kind }));

/** The picture of an account, as SVG: a kite of its two colours. */
export function findAccountPicture(id: string): string | null {
  const found = PEOPLE.find((person) => person.id === id);
  if (!found) return null;
  const [back, front] = found.colours;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><rect width="64" height="64" fill="${back}"/><path d="M32 8 50 28 32 48 14 28Z" fill="${front}"/><path d="M32 48q6 6-2 12" fill="none" stroke="${front}" stroke-width="2"/></svg>`;
}
