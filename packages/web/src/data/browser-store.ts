import { toast } from 'sonner';

/** What a browser keeps for a page, as far as it does. */
interface BrowserStore {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

let isTold = false;
/** Said once: the page works, and knows what it cannot do. */
function tellNotKept(): void {
  if (isTold) return;
  isTold = true;
  toast.info(
    'This browser keeps nothing for this page (blocked, or no room). What you choose lasts until the page is closed; stations are kept by the server.',
  );
}

/** A store that never throws: where the browser blocks it, is full or was emptied, values last as long as the page. */
function storeOf(name: 'localStorage' | 'sessionStorage'): BrowserStore {
  const memory = new Map<string, string | null>();
  return {
    getItem(key) {
      const here = memory.get(key);
      if (here !== undefined) return here;
      try {
        return window[name].getItem(key);
      } catch {
        return null;
      }
    },
    setItem(key, value) {
      try {
        window[name].setItem(key, value);
        memory.delete(key);
      } catch {
        memory.set(key, value);
        tellNotKept();
      }
    },
    removeItem(key) {
      try {
        window[name].removeItem(key);
        memory.delete(key);
      } catch {
        memory.set(key, null);
      }
    },
  };
}

export const localStore: BrowserStore = storeOf('localStorage');
export const sessionStore: BrowserStore = storeOf('sessionStorage');
