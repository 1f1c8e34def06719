import { escapedHtml } from '../../src/core/figures/escape-html';
import { clipPath, coverPath, type PostForm, postPage } from '../../src/core/outlets/post-form';
import type { RuleSheet } from '../../src/core/outlets/rule-sheet';
import type { PostRecord } from './post-records';

const AUDIENCES: Record<PostForm['audience'], string> = {
  private: 'Private: only you see it',
  unlisted: 'Unlisted: whoever has the link',
  friends: 'Friends: whoever follows you and is followed back',
  public: 'Public',
};

function note({ id, form, measured, made_at }: PostRecord, sheet: RuleSheet): string {
  const placement = sheet.placements.find((placement) => placement.id === form.placement);
  const tags = form.tags.map((tag) => `<li>#${escapedHtml(tag)}</li>`).join('');
  const title = escapedHtml(form.title);
  const poster = form.cover === null ? '' : ` poster="${coverPath(sheet.outlet, id)}"`;
  const at = new Date(made_at).toISOString();
  return `<article id="${id}">
  <h2><a href="${postPage(sheet.outlet, id)}">${title}</a></h2>
  <video controls preload="metadata"${poster} src="${clipPath(sheet.outlet, id)}" aria-label="${title}"></video>
  <p>${escapedHtml(form.description)}</p>
  <ul>${tags}</ul>
  <dl>
    <dt>Placement</dt><dd>${escapedHtml(placement?.name ?? form.placement)}</dd>
    <dt>Who can see it</dt><dd>${AUDIENCES[form.audience]}</dd>
    <dt>Measured here</dt><dd>${escapedHtml(measured ?? '')}</dd>
    <dt>Posted</dt><dd><time datetime="${at}">${at.slice(0, 16).replace('T', ' ')} UTC</time></dd>
  </dl>
</article>`;
}

/** The outlet's page: a plain notice-board of some of what it took. */
export function boardPage(sheet: RuleSheet, posts: readonly PostRecord[]): string {
  const notes = posts.map((post) => note(post, sheet)).join('\n');
  return page(sheet, notes || '<p class="none">Nothing is posted here that you may see.</p>');
}

/** What stands where a post is not, or not for whoever asks. */
export function noPostPage(sheet: RuleSheet): string {
  return page(sheet, '<p class="none">There is no such post, or it is not for you to see.</p>');
}

function page(sheet: RuleSheet, main: string): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapedHtml(sheet.name)}: notice-board</title>
<link rel="stylesheet" href="/outlets/board.css">
</head>
<body>
<header><h1>${escapedHtml(sheet.name)}</h1><p>${escapedHtml(sheet.about)}. A stand-in that ships with Gusset.</p></header>
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
`;
