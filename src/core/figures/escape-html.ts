const ENTITIES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Text made safe for HTML. */
export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"']/g, (mark) => ENTITIES[mark] ?? mark);
