// Words that several views say, with their numbers.
import type { Place } from '../../core/mail/place';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { View } from '../../mailroom/api';

export const count = (n: number): string => n.toLocaleString('en');

/** `1 message`, `12 messages`. */
export const messages = (n: number): string => `${count(n)} message${n === 1 ? '' : 's'}`;

/** A view's name as a heading. */
export function viewName(view: View, setup: Setup): string {
  if (view.kind === 'damaged') return 'Damaged';
  if (view.kind === 'label') return setup.labels.find((l) => l.id === view.label)?.name ?? 'Label';
  return placeName(view.place, setup.folders);
}

/** Whether a view is one that the setup knows: a folder or label may be gone. */
export function viewExists(view: View, setup: Setup): boolean {
  if (view.kind === 'label') return setup.labels.some((l) => l.id === view.label);
  if (view.kind !== 'place' || !view.place.startsWith('folder:')) return true;
  return setup.folders.some((f) => `folder:${f.id}` === view.place);
}

/** The places that a message can be moved to, in their order. */
export function movablePlaces(setup: Setup): Place[] {
  return ['inbox', 'archive', ...setup.folders.map((f): Place => `folder:${f.id}`), 'junk', 'bin'];
}
