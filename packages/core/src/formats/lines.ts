/** Lines of a text with their numbers, empty ones left out; nothing is copied before it is looked at. */
export function* linesOf(text: string): Generator<{ readonly line: number; readonly text: string }> {
  let line = 0;
  let from = text.startsWith('\uFEFF') ? 1 : 0;
  const { length } = text;
  while (from < length) {
    line += 1;
    let to = from;
    for (; to < length; to += 1) {
      const code = text.charCodeAt(to);
      if (code === 10 || code === 13) break;
    }
    if (to > from) {
      const content = text.slice(from, to);
      if (content.trim() !== '') yield { line, text: content };
    }
    from = text.charCodeAt(to) === 13 && text.charCodeAt(to + 1) === 10 ? to + 2 : to + 1;
  }
}
