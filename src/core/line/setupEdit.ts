// Changing the setup by single items, so that each change can be journalled and undone by itself.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { checkSetup, setupLists, setupSingles, type Setup, type SetupResult } from './setup';

type Lists = typeof setupLists;
type Singles = typeof setupSingles;
export type SetupList = keyof Lists;
type Single = keyof Singles;

/** One change of the setup: the item as it is to be, or null to take it off. `at`: its position, the end if absent. */
export type SetupEdit =
  | { [L in SetupList]: { list: L; id: string; item: z.infer<Lists[L]['element']> | null; at?: number } }[SetupList]
  | { [S in Single]: { list: S; id: S; item: z.infer<Singles[S]> } }[Single];

const editSchemas = [
  ...Object.entries(setupLists).map(([list, { element }]) =>
    z.object({
      list: z.literal(list),
      id: idSchema,
      item: element.nullable(),
      at: z.number().int().min(0).max(100_000).optional(),
    }),
  ),
  ...Object.entries(setupSingles).map(([list, item]) => z.object({ list: z.literal(list), id: z.literal(list), item })),
];
const [first, ...others] = editSchemas;
// Made from the lists of the setup: the compiler can't follow their types through a loop.
export const setupEditSchema = z.discriminatedUnion('list', [first, ...others]) as unknown as z.ZodType<SetupEdit>;

/** An edit and what takes it back. */
export const setupChangeSchema = z.object({ before: setupEditSchema, after: setupEditSchema });
export type SetupChange = z.infer<typeof setupChangeSchema>;

const listNames = Object.keys(setupLists) as SetupList[];
const singleNames = Object.keys(setupSingles) as Single[];
const isSingle = (list: SetupList | Single): list is Single => list in setupSingles;
const isOfSingle = (edit: SetupEdit): edit is Extract<SetupEdit, { list: Single }> => isSingle(edit.list);

/** What an edit is about, as the setup has it now, and its position; null where it is not there. */
export function itemNow(
  setup: Setup,
  { list, id }: Pick<SetupEdit, 'list' | 'id'>,
): { item: unknown; at: number } | null {
  if (isSingle(list)) return { item: setup[list], at: 0 };
  const items: readonly { id: string }[] = setup[list];
  const at = items.findIndex((item) => item.id === id);
  return at < 0 ? null : { item: items[at], at };
}

/**
 * The setup with one item put in, replaced or taken off. An item with `at` is put at that position; without, it stays
 * where it was, or goes to the end.
 */
export function editSetup(setup: Setup, edit: SetupEdit): Setup {
  if (isOfSingle(edit)) return edit.item ? { ...setup, [edit.list]: edit.item } : setup;
  const { list, id, item, at } = edit;
  const old: readonly { id: string }[] = setup[list];
  const was = old.findIndex((one) => one.id === id);
  const rest = old.filter((one) => one.id !== id);
  if (item !== null) rest.splice(Math.max(0, Math.min(at ?? (was < 0 ? rest.length : was), rest.length)), 0, item);
  return { ...setup, [list]: rest };
}

/** The setup after some edits; the error where it would contradict itself. What is not edited stays the same object. */
export function edited(setup: Setup, edits: readonly SetupEdit[]): SetupResult {
  const next = edits.reduce(editSetup, setup);
  const checked = checkSetup(next);
  return checked.ok ? { ok: true, setup: next } : checked;
}

/** Each edit with what takes it back, as the setup stands when its turn comes: undone from the last to the first. */
export function withInverses(setup: Setup, edits: readonly SetupEdit[]): SetupChange[] {
  let then = setup;
  return edits.map((edit) => {
    const now = itemNow(then, edit);
    const place = now && !isSingle(edit.list) ? { at: now.at } : {};
    const before = { list: edit.list, id: edit.id, item: now?.item ?? null, ...place } as SetupEdit;
    then = editSetup(then, edit);
    return { before, after: edit };
  });
}

/** The edits that put all of a setup in. What others refer to comes first. */
export function setupEdits(setup: Setup): SetupEdit[] {
  const edits = listNames.flatMap((list) => setup[list].map((item) => ({ list, id: item.id, item }) as SetupEdit));
  return [...edits, ...singleNames.map((list) => ({ list, id: list, item: setup[list] }) as SetupEdit)];
}

/** The edits that put one setup in the place of another: first what only that one has is taken off. */
export function replacingEdits(now: Setup, next: Setup): SetupEdit[] {
  const removals = listNames.toReversed().flatMap((list) => {
    const kept = new Set(next[list].map(({ id }) => id));
    return now[list].filter(({ id }) => !kept.has(id)).map(({ id }) => ({ list, id, item: null }) as SetupEdit);
  });
  return [...removals, ...setupEdits(next)];
}
