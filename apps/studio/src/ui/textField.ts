/** Kinds of input that take typed text. */
const TYPED = new Set(['text', 'search', 'number', 'email', 'url', 'tel', 'password', 'date', 'time']);

/** Whether what has the focus takes typed text: letters are its own then. */
export const isTextField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && TYPED.has(target.type)));

/** Keys that move a slider. */
const SLIDES = new Set([
  ...['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'],
  ...['Home', 'End', 'PageUp', 'PageDown'],
]);

/** Whether a key without Ctrl, Alt or Command belongs to the slider that has the focus. */
export const isSliderKey = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLInputElement &&
  event.target.type === 'range' &&
  SLIDES.has(event.key) &&
  !(event.ctrlKey || event.metaKey || event.altKey);
