import { escapeHtml } from '../../../src/core/figures/escape-html';
import { bytesLabel } from '../../../src/core/figures/figures';
import type { Zone } from '../../../src/core/outlets/placement';
import {
  resolveAudience,
  boardPath,
  captionsPath,
  clipPath,
  coverPath,
  type PostForm,
  outletRoot,
  postPage,
} from '../../../src/core/outlets/post-form';
import type { RuleSheet } from '../../../src/core/outlets/rule-sheet';
import type { TakenPost } from './taken-posts';
import { type FaultName, INJECTED_FAULTS } from './fault-injection';

const AUDIENCES: Record<PostForm['audience'], string> = {
  private: 'Private: only you see it',
  unlisted: 'Unlisted: whoever has the link',
  friends: 'Friends: whoever follows you and is followed back',
  public: 'Public',
};

const percent = (share: number): string => `${(100 * share).toFixed(2)}%`;

/** Draws one of the outlet's own controls over the picture on a phone. */
const zone = ({ name, x, y, width, height }: Zone): string =>
  `<i style="left:${percent(x)};top:${percent(y)};width:${percent(width)};height:${percent(height)}">${escapeHtml(name)}</i>`;

function note({ id, form, measured, viewed, made_at }: TakenPost, sheet: RuleSheet): string {
  const placement = sheet.placements.find((placement) => placement.id === form.placement);
  const tags = form.tags.map((tag) => `<li>#${escapeHtml(tag)}</li>`).join('');
  const title = escapeHtml(form.title);
  const poster = form.cover === null ? '' : ` poster="${coverPath(sheet.outlet, id)}"`;
  const at = new Date(made_at).toISOString();
  const captions =
    form.captions === null
      ? ''
      : `<track kind="captions" default label="Captions" src="${captionsPath(sheet.outlet, id)}">`;
  const { paid, synthetic } = form.content;
  const content = [paid && 'paid for', synthetic && 'partly made by a computer'].filter(Boolean).join(', ');
  const { comments, sharing, reuse } = form.permissions;
  const may = [comments && 'comment', sharing && 'share', reuse && 'reuse it'].filter(Boolean).join(', ');
  const { description } = form;
  const audience = resolveAudience(form, Date.now());
  const seen = placement?.words.description.seen ?? description.length;
  const more = [
    ['Placement', placement?.name ?? form.placement],
    ['Who can see it', AUDIENCES[audience]],
    ['Comes up', audience === form.audience ? null : form.publishAt],
    ['Others may', may || 'only watch'],
    ['Content', content],
    ['Collection', form.collection],
    ['Category', form.category],
    ['Long video', form.longVideo],
    ['Measured here', measured],
    ['A viewer gets', viewed && `${viewed.width}×${viewed.height}, ${bytesLabel(viewed.bytes)}`],
  ].filter((fact): fact is [string, string] => Boolean(fact[1]));
  return `<article id="${id}">
  <h2><a href="${outletRoot(sheet.outlet)}${postPage(id)}">${title}</a></h2>
  <div class="screen">
  <video controls loop ${placement?.muted ? 'muted ' : ''}preload="metadata"${poster} src="${clipPath(sheet.outlet, id)}" aria-label="${title}">${captions}</video>
  <div class="zones" aria-hidden="true">${(placement?.zones.phone ?? []).map(zone).join('')}</div>
  </div>
  <p>${escapeHtml(description.slice(0, seen))}${description.length > seen ? `<details><summary>More</summary>${escapeHtml(description.slice(seen))}</details>` : ''}</p>
  <ul>${tags}</ul>
  <dl>
    ${more.map(([name, fact]) => `<dt>${name}</dt><dd>${escapeHtml(fact)}</dd>`).join('\n    ')}
    <dt>Posted</dt><dd><time datetime="${at}">${at.slice(0, 16).replace('T', ' ')} UTC</time></dd>
  </dl>
</article>`;
}

/** The outlet's page: a plain notice-board of some of what it took. */
export function boardPage(sheet: RuleSheet, posts: readonly TakenPost[], weather: FaultName): string {
  const notes = posts.map((post) => note(post, sheet)).join('\n');
  const none = '<p class="none">Nothing is posted here that you may see.</p>';
  return page(sheet, `${notes || none}\n${weatherForm(sheet, weather)}`);
}

/** Page of a post that does not exist, or that the asker may not see. */
export function createNoPostPage(sheet: RuleSheet): string {
  return page(sheet, '<p class="none">There is no such post, or it is not for you to see.</p>');
}

/** A panel with which whoever tries the stand-in makes its weather. */
function weatherForm({ outlet }: RuleSheet, now: FaultName): string {
  const ways = Object.entries(INJECTED_FAULTS).map(
    ([name, words]) =>
      `<p><label><input type="radio" name="weather" value="${name}"${name === now ? ' checked' : ''}> ${words}</label></p>`,
  );
  return `<aside aria-label="Weather"><details><summary>Weather, for trying</summary>
<form method="post" action="${boardPath(outlet)}weather">
${ways.join('\n')}
<p><button>Set the weather</button></p>
<p><button name="tokens" value="expire">Let all tokens expire</button> <button name="tokens" value="withdraw">Take all consent back</button></p>
</form></details></aside>`;
}

function page(sheet: RuleSheet, main: string): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(sheet.name)}: notice-board</title>
<link rel="stylesheet" href="/outlets/board.css">
</head>
<body>
<header><h1>${escapeHtml(sheet.name)}</h1><p>${escapeHtml(sheet.about)}. A stand-in that ships with Gusset.</p></header>
<main>
${main}
</main>
</body>
</html>
`;
}

/** The boards' one style sheet. */
export const BOARD_STYLE = `
:root { font-family: system-ui, sans-serif; color: #1f2b33; background: #e7dcc3; }
body { margin: 0; padding: 24px 16px; max-width: 1100px; margin-inline: auto; }
h1 { margin: 0; font-size: 28px; }
header p { margin: 4px 0 24px; color: #4c5961; }
main { display: flex; flex-wrap: wrap; gap: 20px; align-items: flex-start; }
article { background: #fffdf7; border: 1px solid #cfc3a8; padding: 16px; width: 320px; box-sizing: border-box; }
article::before { content: ""; display: block; width: 44px; height: 6px; background: #8a7a55; margin: -4px auto 12px; }
h2 { margin: 0 0 12px; font-size: 17px; }
h2 a { color: inherit; }
video { width: 100%; max-height: 70vh; background: #1f2b33; display: block; }
ul { display: flex; flex-wrap: wrap; gap: 8px; padding: 0; list-style: none; color: #2b5c8a; }
dl { display: grid; grid-template-columns: auto 1fr; gap: 4px 12px; margin: 0; font-size: 13px; }
dt { color: #4c5961; } dd { margin: 0; }
.none { color: #4c5961; }
.screen { position: relative; }
.zones { position: absolute; inset: 0; pointer-events: none; }
.zones i { position: absolute; box-sizing: border-box; border: 1px dotted #fffdf7; color: #fffdf7; font-size: 11px; }
aside { width: 320px; } summary { min-height: 32px; }
form, section { background: #fffdf7; border: 1px solid #cfc3a8; padding: 16px; width: 320px; box-sizing: border-box; }
input:not([type=radio], [type=checkbox]) { display: block; width: 100%; box-sizing: border-box; min-height: 40px; font: inherit; }
button { min-height: 44px; padding: 0 16px; font: inherit; }
label { display: block; min-height: 32px; } fieldset { border: 1px solid #cfc3a8; margin: 0; }
[role=alert] { color: #9b2c1f; }
section ul { display: block; } section li { margin: 4px 0; }
`;
