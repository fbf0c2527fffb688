/** The first table behind the picture, or what unfolds to one. */
const numbersBehind = (picture: Element): HTMLElement | undefined =>
  [...document.querySelectorAll<HTMLElement>('#sheet table, #sheet details[data-numbers]')].find(
    (one) => (picture.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
  );

/** Where an element is looked at: its own scrolling region, else itself. */
const standing = (element: HTMLElement): HTMLElement => element.closest<HTMLElement>('[role="region"]') ?? element;

function goTo(element: HTMLElement): void {
  if (!element.hasAttribute('tabindex')) element.tabIndex = -1;
  element.focus({ preventScroll: true });
  element.scrollIntoView({ block: 'nearest' });
}

/** From the room's picture to the table of its numbers, and from the table back to the picture. */
export function toNumbers(): void {
  const picture = document.querySelector<HTMLElement>('#sheet [data-evidence]');
  if (!picture) return;
  const numbers = numbersBehind(picture);
  if (!numbers || standing(numbers).contains(document.activeElement)) return goTo(picture);
  if (!(numbers instanceof HTMLDetailsElement)) return goTo(standing(numbers));
  numbers.open = true;
  // the table comes with the next frame
  setTimeout(() => goTo(numbers.querySelector<HTMLElement>('[role="region"]') ?? numbers));
}
