import { escapeHtml } from '../../src/core/figures/escape-html';
import { bytesLabel, secondsLabel } from '../../src/core/figures/figures';
import type { KeptOffer } from './offers';

/** The page that a phone opens: what the file is, a link to it, and a check of what arrived. */
export function offerPage(
  { token, fileName, bytes, seconds, sha256, until }: KeptOffer,
  script: string,
): string {
  const name = escapeHtml(fileName);
  const facts = [
    ['Size', `${bytesLabel(bytes)} (${bytes} bytes)`],
    ['Length', seconds === null ? null : secondsLabel(Math.round(10 * seconds) / 10)],
    ['SHA-256', sha256],
    ['Open until', new Date(until).toISOString().slice(11, 16).concat(' UTC')],
  ].filter((fact): fact is [string, string] => fact[1] !== null);
  return page(
    fileName,
    `<h1>${name}</h1>
<dl>
${facts.map(([label, fact]) => `<dt>${label}</dt><dd>${fact}</dd>`).join('\n')}
</dl>
<p><a class="act" href="/${token}/file" download="${name}">Save the file</a></p>
<p>A download that breaks off goes on where it stopped.</p>
<section aria-labelledby="check">
<h2 id="check">Is it the same?</h2>
<p>Choose the file that you saved. It is read here, on this phone, and goes nowhere.</p>
<p><label class="act" for="file">Check the saved file</label><input id="file" type="file"></p>
<progress id="progress" max="1" value="0" aria-label="Reading the file" hidden></progress>
<p id="found" role="status"></p>
</section>
<script type="module" src="${script}"></script>`,
    ` data-token="${token}" data-name="${name}"`,
  );
}

const ENDED: Record<Exclude<KeptOffer['state'], 'open'>, [title: string, words: string]> = {
  arrived: ['It has arrived', 'The file arrived unchanged, and this address is closed.'],
  expired: ['This address has run out', 'It was open for ten minutes. Ask for a new code at the desk.'],
  closed: ['This address was closed', 'The desk took the file back. Ask there for a new code.'],
};

/** Page at an address whose offer has ended. */
export const createEndedPage = (state: Exclude<KeptOffer['state'], 'open'>): string =>
  page(ENDED[state][0], `<h1>${ENDED[state][0]}</h1>\n<p>${ENDED[state][1]}</p>`);

/** The 404 page. */
export const createMissingPage = (): string =>
  page(
    'Nothing here',
    '<h1>Nothing here</h1>\n<p>Scan the code that the desk shows, or type its whole address.</p>',
  );

function page(title: string, main: string, facts = ''): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
<link rel="stylesheet" href="/phone.css">
</head>
<body>
<main${facts}>
${main}
</main>
</body>
</html>
`;
}

/** The one style sheet of these pages. */
export const PHONE_STYLE = `
:root { font-family: system-ui, sans-serif; color: #1f2b33; background: #f4eee0; }
body { margin: 0; } main { max-width: 560px; margin-inline: auto; padding: 24px 16px; }
h1 { font-size: 24px; overflow-wrap: anywhere; } h2 { font-size: 19px; }
dl { display: grid; grid-template-columns: auto 1fr; gap: 8px 16px; margin: 16px 0; }
dt { color: #4c5961; } dd { margin: 0; overflow-wrap: anywhere; }
.act { display: block; box-sizing: border-box; min-height: 56px; padding: 16px; text-align: center; font-size: 18px; background: #24517b; color: #fffdf7; text-decoration: none; border-radius: 6px; }
label.act { background: #fffdf7; color: #24517b; border: 2px solid #24517b; }
input[type=file] { position: absolute; width: 1px; height: 1px; opacity: 0; }
input[type=file]:focus-visible { outline: none; } label:has(+ input:focus-visible) { outline: 3px solid #1f2b33; outline-offset: 2px; }
section { border-top: 1px solid #cfc3a8; margin-top: 24px; }
progress { width: 100%; height: 12px; }
#found { font-size: 18px; font-weight: 600; } #found.differs { color: #9b2c1f; } #found.same { color: #2f6136; }
`;
