// Names of labels, folders and trays: each is the only one of its name where it stands, and none is called as a place is.
import type { Nested } from '../mail/nesting';
import { fixedPlaces, placeName } from '../mail/place';
import type { Setup } from './setup';

const fold = (name: string): string => name.trim().toLowerCase();
const spot = ({ name, parent }: Nested): string => `${parent ?? ''}\n${fold(name)}`;

/**
 * Why a label, folder or tray can’t be called or put as a change of the setup would have it; null where nothing stands against
 * it. What was so before stays, whatever it is called.
 */
export function nameClash(before: Setup, after: Setup): string | null {
  for (const list of ['labels', 'folders', 'trays'] as const) {
    const items: readonly Nested[] = after[list];
    if (after[list] === before[list]) continue;
    const was = new Map(before[list].map((item: Nested) => [item.id, spot(item)]));
    const there = new Map<string, number>();
    for (const item of items) there.set(spot(item), (there.get(spot(item)) ?? 0) + 1);
    const one = { labels: 'label', folders: 'folder', trays: 'tray' }[list];
    for (const item of items) {
      if (was.get(item.id) === spot(item)) continue;
      const within = items.find(({ id }) => id === item.parent);
      if ((there.get(spot(item)) ?? 0) > 1)
        return `There is a ${one} “${item.name}” ${within ? `within “${within.name}”` : 'here'} already: it needs another name.`;
      if (list === 'folders' && !within && fixedPlaces.some((place) => fold(placeName(place, [])) === fold(item.name)))
        return `“${item.name}” is the name of a place: the folder needs another.`;
    }
  }
  return null;
}
