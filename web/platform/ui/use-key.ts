import { useHotkeys } from 'react-hotkeys-hook';

/**
 * Does something when a key is pressed outside of fields, by what the key writes rather than where it lies: on some
 * keyboards `/`, `?` or the digits need Shift. With Ctrl, Alt or the command key it is the browser's; while a dialog is
 * open, the dialog's. Whoever has switched shortcuts off keeps Enter and the arrows (WCAG 2.1.4).
 *
 * @param takesOver  keeps the key from doing anything else
 */
export function useKey(
  keys: string | readonly string[],
  act: (event: KeyboardEvent) => void,
  { takesOver = false } = {},
) {
  useHotkeys(keys, act, {
    useKey: true,
    ignoreModifiers: true,
    enabled: (event) =>
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey &&
      !document.querySelector('dialog[open]') &&
      !(event.key.length === 1 && document.documentElement.dataset.shortcuts === 'off'),
    preventDefault: takesOver,
  });
}
