// Changing the setup by single items, so that each change can be journalled and undone by itself.
import type { Setup } from '../core/line/setup';
import type { SetupEdit } from './api';

/**
 * The setup with one item put in, replaced or taken off. An item with `at` is put at that position; without, it stays
 * where it was, or goes to the end.
 */
export function editSetup(setup: Setup, edit: SetupEdit): Setup {
  const old: readonly { id: string }[] = setup[edit.list];
  const was = old.findIndex((item) => item.id === edit.id);
  const rest = old.filter((item) => item.id !== edit.id);
  if (edit.item !== null) {
    const at = edit.at ?? (was < 0 ? rest.length : was);
    rest.splice(Math.max(0, Math.min(at, rest.length)), 0, edit.item);
  }
  return { ...setup, [edit.list]: rest };
}
