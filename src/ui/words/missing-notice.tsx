import { findMissingGraphemes } from '@core/words/font-runs';
import { useFontBook, useFontList } from '@state/words';
import { Notice, TroubleNotice } from '../parts/notice';

/** Tells which characters no font has, before they become boxes. */
export function MissingNotice({ text, family }: { text: string; family: string }) {
  const book = useFontBook();
  const trouble = useFontList((state) => state.trouble);
  if (trouble) return <TroubleNotice trouble={trouble} />;
  const missing = book ? findMissingGraphemes(text, family, book) : [];
  if (missing.length === 0) return null;
  const shown = missing.slice(0, 8).join(' ');
  return missing.length === 1 ? (
    <Notice standing="warn" title={`No font has this character: ${shown}`}>
      It would be drawn as an empty box. Write something else, or bring in a font that has it.
    </Notice>
  ) : (
    <Notice standing="warn" title={`No font has these characters: ${shown}`}>
      They would be drawn as empty boxes. Write something else, or bring in a font that has them.
    </Notice>
  );
}
