const FOCUSABLE =
  'a[href], button:not([disabled]), input:not([disabled]):not([type="hidden"]), select:not([disabled]), textarea:not([disabled]), summary, [tabindex]:not([tabindex="-1"])';
/** Parts of a list: when one goes, the next one takes its place. */
const ROW = 'li, tr, [role="row"], [role="listitem"]';

/** An ancestor of what had the focus, as it was then. */
interface Place {
  readonly parent: Element;
  readonly index: number;
  readonly children: ReadonlySet<Element>;
}

const placesOf = (element: Element): readonly Place[] => {
  const places: Place[] = [];
  for (let child = element; child.parentElement; child = child.parentElement) {
    const children = [...child.parentElement.children];
    places.push({ parent: child.parentElement, index: children.indexOf(child), children: new Set(children) });
  }
  return places;
};

const firstIn = (element: Element | undefined): HTMLElement | undefined => {
  if (!(element instanceof HTMLElement)) return undefined;
  if (element.matches(FOCUSABLE)) return element;
  return element.querySelector<HTMLElement>(FOCUSABLE) ?? undefined;
};

/**
 * Where the focus goes when what had it is gone: into what came in its place (a form that was opened, the button of one that was closed), into the next row
 * of a list, back to what had it before, else to the room.
 */
function heir(gone: Element, places: readonly Place[], before: readonly HTMLElement[]): HTMLElement | undefined {
  const place = places.find(({ parent }) => parent.isConnected);
  const sheet = document.getElementById('sheet') ?? undefined;
  const back = before.findLast((one) => one.isConnected && one !== gone);
  // the whole page was exchanged: the new one begins at its sheet, as soon as that is there
  if (place?.parent === document.body || place?.parent.id === 'root') return back ?? sheet;
  if (place) {
    const now = [...place.parent.children];
    const inPlace = now[place.index];
    if (inPlace && !place.children.has(inPlace)) {
      const first = firstIn(inPlace);
      if (first) return first;
    }
    const removed = [...place.children].find((child) => child.contains(gone));
    if (removed?.matches(ROW)) {
      const row = firstIn(inPlace) ?? firstIn(now.at(-1));
      if (row) return row;
    }
  }
  return back ?? (place ? firstIn(place.parent) : undefined) ?? sheet;
}

/** How many earlier holders of the focus are remembered. */
const REMEMBERED = 8;

/** Keeps the focus from falling to the top of the page when what had it goes away. @returns a way to stop. */
export function keepFocus(): () => void {
  const before: HTMLElement[] = [];
  let last: { readonly element: HTMLElement; readonly places: readonly Place[] } | undefined;
  const onFocus = ({ target }: FocusEvent): void => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    if (last && last.element !== target) {
      before.push(last.element);
      if (before.length > REMEMBERED) before.shift();
    }
    last = { element: target, places: placesOf(target) };
  };
  const onChange = (): void => {
    if (!last || last.element.isConnected) return;
    if (document.activeElement && document.activeElement !== document.body) return;
    const next = heir(last.element, last.places, before);
    // nothing there yet: the page that comes is asked again
    if (!next) return;
    last = undefined;
    next.focus({ preventScroll: true });
  };
  const observer = new MutationObserver(onChange);
  document.addEventListener('focusin', onFocus);
  observer.observe(document.body, { childList: true, subtree: true });
  return () => {
    observer.disconnect();
    document.removeEventListener('focusin', onFocus);
  };
}
