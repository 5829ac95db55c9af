import { useEffect } from 'react';

/** Whether a key pressed there is text being typed and not a shortcut. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable);

/** A key as shortcuts name it: `n`, `Ctrl+z` (also for the command key), `Alt+ArrowUp`. */
export const keyName = (event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>): string =>
  `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${event.shiftKey && event.key === 'Tab' ? 'Shift+' : ''}${event.key}`;

/** What each key does now; a key with nothing behind it keeps its usual meaning. */
export type Shortcuts = Readonly<Record<string, (() => void) | false | undefined>>;

const LEFT_TO_FOCUS: ReadonlySet<string> = new Set(['Enter', 'Tab']);

/** Shortcuts of a view. They rest while text is being typed; Enter and Tab are left to whatever has the focus. */
export function useShortcuts(keys: Shortcuts, off = false): void {
  useEffect(() => {
    if (off) return;
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isTyping(event.target) || (LEFT_TO_FOCUS.has(event.key) && event.target !== document.body)) return;
      const act = keys[keyName(event)];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
    };
  });
}
