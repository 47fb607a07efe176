import { useHotkeys } from 'react-hotkeys-hook';
import { useKey } from './use-key';

/** Enter saves, where it is not that of a control that has the focus; with Ctrl or the command key it saves from everywhere, fields too. */
export function useSaveKey(save: () => void): void {
  useKey('enter', () => {
    if (!document.activeElement?.closest('button, a, summary')) save();
  });
  useHotkeys('mod+enter', save, {
    enableOnFormTags: true,
    preventDefault: true,
    enabled: () => !document.querySelector('dialog[open]'),
  });
}
