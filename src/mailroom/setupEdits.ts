// Changing the setup by single items, so that each change can be journalled and undone by itself.
import type { Setup } from '../core/line/setup';
import type { SetupEdit } from './api';
import type { JournalRecord } from './records';

/** What an edit is about, as the setup has it now, and its position; null where it is not there. */
export function itemNow(
  setup: Setup,
  { list, id }: Pick<SetupEdit, 'list' | 'id'>,
): { item: unknown; at: number } | null {
  if (list === 'junk') return { item: setup.junk, at: 0 };
  const items: readonly { id: string }[] = setup[list];
  const at = items.findIndex((item) => item.id === id);
  return at < 0 ? null : { item: items[at], at };
}

/**
 * The setup with one item put in, replaced or taken off. An item with `at` is put at that position; without, it stays
 * where it was, or goes to the end.
 */
export function editSetup(setup: Setup, edit: SetupEdit): Setup {
  if (edit.list === 'junk') return edit.item ? { ...setup, junk: edit.item } : setup;
  const old: readonly { id: string }[] = setup[edit.list];
  const was = old.findIndex((item) => item.id === edit.id);
  const rest = old.filter((item) => item.id !== edit.id);
  if (edit.item !== null) {
    const at = edit.at ?? (was < 0 ? rest.length : was);
    rest.splice(Math.max(0, Math.min(at, rest.length)), 0, edit.item);
  }
  return { ...setup, [edit.list]: rest };
}

/** Each edit with what takes it back, as the setup stands when its turn comes: undone from the last to the first. */
export function withInverses(setup: Setup, edits: readonly SetupEdit[]): NonNullable<JournalRecord['setup']> {
  let then = setup;
  return edits.map((edit) => {
    const now = itemNow(then, edit);
    const place = now && edit.list !== 'junk' ? { at: now.at } : {};
    const before = { list: edit.list, id: edit.id, item: now?.item ?? null, ...place } as SetupEdit;
    then = editSetup(then, edit);
    return { before, after: edit };
  });
}
