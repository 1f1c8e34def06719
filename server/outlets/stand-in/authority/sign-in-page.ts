import { escapeHtml } from '../../../../src/core/figures/escape-html';
import type { Scope } from '../../../../src/core/outlets/outlet-api';
import { LOGINS, PASSWORD } from './people';

/** Meaning of each scope, in a person's words. */
const MEANS: Record<Scope, string> = {
  read: 'see your name and picture, and what it posted',
  post: 'post clips for you, change who may see them, and take them down',
};

interface SignIn {
  outlet: string;
  /** Where the form goes. */
  action: string;
  client: string;
  scopes: readonly Scope[];
  /** Fault of the last attempt, or null. */
  problem: string | null;
}

/** The plain page on which somebody signs in to an outlet and says what is allowed. */
export function signInPage({ outlet, action, client, scopes, problem }: SignIn): string {
  const kinds = { person: 'a person', page: 'a page' };
  const logins = LOGINS.map(
    ({ login, name, kind }) => `<li><b>${login}</b> – ${escapeHtml(name)}, ${kinds[kind]}</li>`,
  );
  const boxes = scopes.map(
    (scope) =>
      `<p><label><input type="checkbox" name="scope" value="${scope}" checked> ${MEANS[scope]}</label></p>`,
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Sign in to ${escapeHtml(outlet)}</title>
<link rel="stylesheet" href="/outlets/board.css">
</head>
<body>
<header><h1>${escapeHtml(outlet)}</h1><p>Sign in. This is a stand-in that ships with Gusset.</p></header>
<main>
<form method="post" action="${action}">
${problem === null ? '' : `<p role="alert">${escapeHtml(problem)}</p>`}
<p><label>Name <input id="login" name="login" autocomplete="username" autocapitalize="none" required></label></p>
<p><label>Password <input id="password" name="password" type="password" autocomplete="current-password" required></label></p>
<fieldset><legend>${escapeHtml(client)} may</legend>
${boxes.join('\n')}
</fieldset>
<p><button name="act" value="allow">Sign in and allow</button> <button name="act" value="refuse" formnovalidate>Refuse</button></p>
</form>
<section aria-label="Who may sign in here">
<p>Made-up accounts; the password of each is <b>${PASSWORD}</b>.</p>
<ul>${logins.join('')}</ul>
</section>
</main>
</body>
</html>
`;
}
