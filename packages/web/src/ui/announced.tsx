import { useEffect, useRef, type ReactNode } from 'react';

/** Longest text that is said by itself; the whole stands on the page. */
const MOST_LETTERS = 240;

/** What is said of a result: its text without the buttons' own words, whole sentences as far as they are short. */
function spoken(text: string): string {
  const plain = text.replace(/\s+/g, ' ').trim();
  if (plain.length <= MOST_LETTERS) return plain;
  const end = plain.slice(0, MOST_LETTERS).search(/[.:;](?=[^.:;]*$)/);
  return end > 0 ? plain.slice(0, end + 1) : plain.slice(0, MOST_LETTERS);
}

/**
 * A result that follows what is typed. It may hold buttons and much text; a screen reader is told its first sentences when they change, from a line of
 * their own, so that no control stands inside a live region.
 */
export function Announced({ className, children }: { readonly className?: string; readonly children: ReactNode }) {
  const seen = useRef<HTMLDivElement>(null);
  const told = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    const now = spoken(seen.current?.textContent ?? '');
    if (told.current && told.current.textContent !== now) told.current.textContent = now;
  });
  return (
    <div className="relative">
      <div ref={seen} className={className}>
        {children}
      </div>
      <p ref={told} role="status" data-told className="sr-only" />
    </div>
  );
}

/** Tells a change of a room's verdict; arriving in a room moves the focus there instead, and says its title. */
export function VerdictChange({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const seen = useRef<HTMLDivElement>(null);
  const told = useRef<HTMLParagraphElement>(null);
  const before = useRef({ title: '', text: '' });
  useEffect(() => {
    const text = spoken(seen.current?.textContent ?? '');
    if (before.current.title === title && before.current.text !== text && told.current) told.current.textContent = text;
    before.current = { title, text };
  });
  return (
    <>
      <div
        ref={seen}
        className="verdict mb-4 max-w-[58rem] text-pretty font-serif text-[1.2rem] leading-snug sm:text-[1.26rem] sm:leading-[1.3]"
      >
        {children}
      </div>
      <p ref={told} aria-live="polite" data-told className="sr-only" />
    </>
  );
}
