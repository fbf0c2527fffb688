import { useHotkeys } from 'react-hotkeys-hook';
import { actionOf, useKeys } from './keys';

const TEXTLESS = ['button', 'checkbox', 'file', 'radio', 'range', 'reset', 'submit', 'image', 'color'];
const holdsText = (target: EventTarget | null): boolean =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && !TEXTLESS.includes(target.type)) ||
  (target instanceof HTMLElement && target.isContentEditable);
/** A choice list takes letters itself, to jump to its options. */
const takesLetters = (target: EventTarget | null): boolean =>
  holdsText(target) ||
  target instanceof HTMLSelectElement ||
  (target instanceof Element && target.closest('[role="listbox"], [role="menu"], [role="combobox"]') !== null);

/** True while a dialog stands over the page: its keys are its own. */
const behindDialog = (): boolean => document.querySelector('[role="dialog"], [role="alertdialog"]') !== null;

/** Esc leaves a field for the form or section around it, so that Tab goes on from there. */
function leaveField(field: HTMLElement): void {
  const around = field.closest<HTMLElement>('fieldset, form, section, #sheet');
  if (!around) return;
  if (!around.hasAttribute('tabindex')) around.tabIndex = -1;
  around.focus({ preventScroll: true });
}

/**
 * The keys of the whole page. Single characters follow what the listener chose, by the character and not the place of the key, since layouts differ;
 * nothing answers behind a dialog, and characters never while text is typed.
 */
export function useShellKeys(act: (action: string) => void, undo: () => void): void {
  const keys = useKeys();
  useHotkeys(
    '*',
    (event) => {
      if (event.defaultPrevented || event.isComposing || behindDialog()) return;
      const mod = event.ctrlKey || event.metaKey;
      if (mod && !event.altKey && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        return act('palette');
      }
      // while text is typed the field's own undo counts
      if (mod && !event.altKey && !event.shiftKey && event.key.toLowerCase() === 'z' && !holdsText(event.target)) {
        event.preventDefault();
        return undo();
      }
      if (event.key === 'Escape' && event.target instanceof HTMLElement && takesLetters(event.target))
        return leaveField(event.target);
      // AltGr makes characters on some layouts and reads as Ctrl and Alt together
      if ((mod || event.altKey) && !(event.ctrlKey && event.altKey)) return;
      if (takesLetters(event.target)) return;
      const action = actionOf(event.key, keys);
      if (action === undefined) return;
      event.preventDefault();
      act(action);
    },
    { enableOnFormTags: true, enableOnContentEditable: true },
  );
}
