// Words that several views say, with their numbers.
import { type Place, placeName, targetPlaces } from '../../core/mail/place';
import { count } from '../../core/text/sentences';
import { inTree, pathOf } from '../../core/mail/nesting';
import type { Setup } from '../../core/line/setup';
import type { SavedSearch } from '../../core/search/saved';
import type { ConversationCounts } from '../../mailroom/border/rows';
import { noAccount, type Filter, type View } from '../../mailroom/border/views';

/** What a conversation holds, each number with what it counts: `3 received · 1 own · 2 flagged · 1 late`. */
export function conversationWords({ received, own, flagged, late }: ConversationCounts): string {
  const parts: [number, string][] = [
    [received, 'received'],
    [own, 'own'],
    [flagged, 'flagged'],
    [late, 'late'],
  ];
  return parts
    .filter(([n]) => n > 0)
    .map(([n, word]) => `${count(n)} ${word}`)
    .join(' · ');
}

/** A place as a choice names it: a folder with all that it stands within. */
export const placePath = (place: Place, setup: Setup): string =>
  place.startsWith('folder:') ? pathOf(setup.folders, place.slice(7)) : placeName(place, setup.folders);

/** A label with all that it stands within; one that is gone is said to be. */
export const labelName = (id: string, setup: Setup): string =>
  setup.labels.some((label) => label.id === id) ? pathOf(setup.labels, id) : 'a label that is gone';

/** A tray’s name; one that is gone is said to be. */
export const trayName = (id: string, setup: Setup): string =>
  setup.trays.find((tray) => tray.id === id)?.name ?? 'a tray that is gone';

/** The saved search that asks for what a view shows. */
export function savedSearchOf({ query, within }: Extract<View, { kind: 'found' }>, setup: Setup): SavedSearch | null {
  const where = JSON.stringify(within);
  return setup.searches.find((saved) => saved.query === query && JSON.stringify(saved.within) === where) ?? null;
}

/** A view's name as a heading. */
export function viewName(view: View, setup: Setup): string {
  if (view.kind === 'damaged') return 'Damaged';
  if (view.kind === 'silenced') return 'Silenced';
  if (view.kind === 'found') {
    const found = view.within ? `Found in ${viewName(view.within, setup)}` : 'Found everywhere';
    return savedSearchOf(view, setup)?.name ?? found;
  }
  if (view.kind === 'label') return setup.labels.find((l) => l.id === view.label)?.name ?? 'Label';
  if (view.tray !== undefined) return trayName(view.tray, setup);
  return placeName(view.place, setup.folders);
}

/** What each filter leaves in sight, in a word. */
export const filterNames: Record<Filter, string> = {
  unread: 'Unread',
  read: 'Read',
  flagged: 'Flagged',
  alone: 'To me alone',
  attachments: 'With attachments',
};

/** The name of a view with what narrows it: `Inbox: Unread, the account Office`. */
export function narrowedName(view: View, setup: Setup): string {
  const whole = view.kind === 'found' && !savedSearchOf(view, setup) ? `Found by ${view.query}` : viewName(view, setup);
  const account = (id: string) => {
    if (id === noAccount) return 'to none of the accounts';
    const name = setup.accounts.find((one) => one.id === id)?.name;
    return name === undefined ? 'an account that is gone' : `the account ${name}`;
  };
  const by = [
    ...(view.filter ? [filterNames[view.filter.by]] : []),
    ...(view.account === undefined ? [] : [account(view.account)]),
  ];
  return by.length ? `${whole}: ${by.join(', ')}` : whole;
}

/** Whether a view is one that the setup knows: a folder or label may be gone. */
export function viewExists(view: View, setup: Setup): boolean {
  if (view.kind === 'found') return view.within === null || viewExists(view.within, setup);
  if (view.kind === 'label') return setup.labels.some((l) => l.id === view.label);
  if (view.kind === 'place' && view.tray !== undefined) return setup.trays.some(({ id }) => id === view.tray);
  if (view.kind !== 'place' || !view.place.startsWith('folder:')) return true;
  return setup.folders.some((f) => `folder:${f.id}` === view.place);
}

/** The places that a message can be moved to, in their order. */
export function movablePlaces(setup: Setup): Place[] {
  return targetPlaces(inTree(setup.folders).map(({ item }) => item));
}
