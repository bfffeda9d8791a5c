// What lies over the page, and who has a key: whoever was on top when it was pressed. What a key closes does not hand it on
// to what lay behind, which hears of it a moment later.

/** Marks a panel beside or over the page: while the focus is in it, or where it covers all, keys are its own. */
export const layer = { 'data-layer': '' } as const;

const covers = (element: Element): boolean => {
  const { left, width, top, height } = element.getBoundingClientRect();
  return left <= 0 && top <= 0 && width >= innerWidth && height >= innerHeight;
};

/** What is on top of the page for a key pressed there; null where that is the page itself. */
function onTop(target: EventTarget | null): Element | null {
  const questions = document.querySelectorAll('dialog[open]');
  if (questions.length > 0) return questions[questions.length - 1];
  const within = target instanceof Element ? target.closest('[data-layer]') : null;
  return within ?? [...document.querySelectorAll('[data-layer]')].findLast(covers) ?? null;
}

const owners = new WeakMap<Event, Element | null>();

// On its way down, before anybody can have closed anything.
addEventListener('keydown', (event) => void owners.set(event, onTop(event.target)), { capture: true });

/** Whether a key that is pressed is the page's own: nothing lay over it, or had the focus, when it was pressed. */
export const isOfPage = (event: KeyboardEvent): boolean =>
  owners.has(event) ? owners.get(event) === null : !onTop(null);
