/** Characters that the text faces have; anything else is set in the face for signs. µ of the keyboard is the Greek letter there. */
const TEXT_FACE =
  /^[\u0020-\u00b4\u00b6-\u017f\u2013\u2014\u2018-\u201d\u2026\u2212\u2248\u2260\u2264\u2265\u221e\u221aΩΔπμ\n\t]*$/u;
const ONE =
  /[\u0020-\u00b4\u00b6-\u017f\u2013\u2014\u2018-\u201d\u2026\u2212\u2248\u2260\u2264\u2265\u221e\u221aΩΔπμ\n\t]/u;

/** A run of text in one face. */
interface Run {
  readonly text: string;
  readonly font?: 'Signs';
}

/** Splits a text into runs that each have a face with all their letters. */
function runsOf(text: string): readonly Run[] {
  const runs: { text: string; font?: 'Signs' }[] = [];
  for (const letter of text) {
    const font = ONE.test(letter) ? undefined : ('Signs' as const);
    const last = runs.at(-1);
    if (last && last.font === font) last.text += letter;
    else runs.push(font ? { text: letter, font } : { text: letter });
  }
  return runs;
}

/**
 * The same document with every text set in faces that have its letters: a definition of the PDF library holds texts as strings, or under "text", in lists and
 * tables at any depth. Nothing else is touched.
 */
export function withSigns(part: unknown): unknown {
  if (typeof part === 'string') {
    const text = part
      .replaceAll('\u00b5', '\u03bc')
      .replaceAll('\u2126', 'Ω')
      .replaceAll('\u202f', '\u00a0')
      .replaceAll('→', '–');
    return TEXT_FACE.test(text) ? text : { text: runsOf(text) };
  }
  if (Array.isArray(part)) return part.map(withSigns);
  if (typeof part !== 'object' || part === null) return part;
  return Object.fromEntries(
    Object.entries(part).map(([name, value]: [string, unknown]) => {
      if (name === 'text' && typeof value === 'string') {
        const set = withSigns(value);
        return [name, typeof set === 'object' && set !== null && 'text' in set ? set.text : set];
      }
      return [name, HOLDS_TEXT.has(name) ? withSigns(value) : value];
    }),
  );
}
/** Names under which a definition holds further parts. */
const HOLDS_TEXT = new Set(['text', 'content', 'stack', 'columns', 'ul', 'ol', 'table', 'body', 'footer', 'header']);
