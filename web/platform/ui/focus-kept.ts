interface Held {
  element: HTMLElement;
  /** What it stood in, the nearest first. */
  around: HTMLElement[];
}

const isOff = (element: HTMLElement) => element.matches(':disabled');

function heldBy(element: HTMLElement): Held {
  const around: HTMLElement[] = [];
  for (let at = element.parentElement; at; at = at.parentElement) around.push(at);
  return { element, around };
}

/** Whether the focus may go to what stood around: within the page, not to the bars about it. */
const isInPage = (element: HTMLElement) => element.isConnected && element.closest('main, aside, dialog') !== null;

/**
 * Keeps the place of whoever works by keyboard. A button that is off while it saves has the focus again when it is on; where what had the
 * focus is gone from the page, what it stood in takes its place, so that Tab goes on from there. Whoever taps beside lets go of it.
 */
export function keepFocus(): () => void {
  let held: Held | null = null;
  const hold = ({ target }: FocusEvent) => {
    if (target instanceof HTMLElement) held = heldBy(target);
  };
  const letGo = ({ target, relatedTarget }: FocusEvent) => {
    const isLeft = relatedTarget === null && target instanceof HTMLElement;
    if (isLeft && target.isConnected && !isOff(target) && document.hasFocus()) held = null;
  };
  const forget = () => {
    held = null;
  };
  const restore = () => {
    if (!held || document.activeElement !== document.body || document.querySelector('dialog[open]')) return;
    const { element, around } = held;
    if (element.isConnected) {
      if (!isOff(element)) element.focus({ preventScroll: true });
      return;
    }
    held = null;
    const place = around.find(isInPage);
    if (!place) return;
    if (!place.hasAttribute('tabindex')) place.tabIndex = -1;
    place.focus({ preventScroll: true });
  };
  const seen = new MutationObserver(restore);
  seen.observe(document.body, { childList: true, subtree: true, attributeFilter: ['disabled'] });
  document.addEventListener('focusin', hold);
  document.addEventListener('focusout', letGo);
  document.addEventListener('pointerdown', forget);
  return () => {
    seen.disconnect();
    document.removeEventListener('focusin', hold);
    document.removeEventListener('focusout', letGo);
    document.removeEventListener('pointerdown', forget);
  };
}
