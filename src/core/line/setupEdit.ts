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

type Items = { id: string }[];

/**
 * A setup that is being edited. Each list is copied once, however many edits there are, and an id that is not in it is
 * known without looking through it: a CSV file may bring 50,000 entries.
 */
class SetupInWork {
  private readonly lists = new Map<SetupList, { items: Items; ids: Set<string>; hint: number }>();
  private setup: Setup;

  constructor(setup: Setup) {
    this.setup = setup;
  }

  /** What an edit is about, as it is now, and its position; null where it is not there. */
  now({ list, id }: Pick<SetupEdit, 'list' | 'id'>): { item: unknown; at: number } | null {
    if (isSingle(list)) return { item: this.setup[list], at: 0 };
    const at = this.find(list, id);
    return at < 0 ? null : { item: this.of(list).items[at], at };
  }

  /** Puts one item in, replaces it or takes it off. */
  edit(edit: SetupEdit): void {
    if (isOfSingle(edit)) {
      if (edit.item) this.setup = { ...this.setup, [edit.list]: edit.item };
      return;
    }
    const { list, id, item, at } = edit;
    const was = this.find(list, id);
    const work = this.of(list);
    if (item !== null && was >= 0 && (at === undefined || at === was)) {
      work.items[was] = item;
      return;
    }
    if (was >= 0) work.items.splice(was, 1);
    if (item === null) {
      work.ids.delete(id);
      return;
    }
    work.ids.add(id);
    work.items.splice(Math.max(0, Math.min(at ?? work.items.length, work.items.length)), 0, item);
  }

  /** The setup as it has become; lists without an edit are the same objects. */
  done(): Setup {
    const changed = [...this.lists].map(([list, { items }]) => [list, items]);
    return changed.length ? { ...this.setup, ...(Object.fromEntries(changed) as Partial<Setup>) } : this.setup;
  }

  private of(list: SetupList) {
    let work = this.lists.get(list);
    if (!work) {
      const items: Items = [...this.setup[list]];
      work = { items, ids: new Set(items.map(({ id }) => id)), hint: 0 };
      this.lists.set(list, work);
    }
    return work;
  }

  /** Where an id stands in its list, -1 where it doesn't: mostly beside the one that was looked for before. */
  private find(list: SetupList, id: string): number {
    const work = this.of(list);
    if (!work.ids.has(id)) return -1;
    const near = [work.hint, work.hint + 1, work.hint - 1].find((at) => work.items[at]?.id === id);
    work.hint = near ?? work.items.findIndex((item) => item.id === id);
    return work.hint;
  }
}

/**
 * The setup after some edits, as they stand. An item with `at` is put at that position; without, it stays where it was,
 * or goes to the end. What is not edited stays the same object.
 */
export function editSetup(setup: Setup, edits: readonly SetupEdit[]): Setup {
  if (edits.length === 0) return setup;
  const work = new SetupInWork(setup);
  for (const edit of edits) work.edit(edit);
  return work.done();
}

/** The setup after some edits; the error where it would contradict itself. */
export function edited(setup: Setup, edits: readonly SetupEdit[]): SetupResult {
  const next = editSetup(setup, edits);
  const checked = checkSetup(next);
  return checked.ok ? { ok: true, setup: next } : checked;
}

/** Each edit with what takes it back, as the setup stands when its turn comes: undone from the last to the first. */
export function withInverses(setup: Setup, edits: readonly SetupEdit[]): SetupChange[] {
  const work = new SetupInWork(setup);
  return edits.map((edit) => {
    const now = work.now(edit);
    const place = now && !isSingle(edit.list) ? { at: now.at } : {};
    const before = { list: edit.list, id: edit.id, item: now?.item ?? null, ...place } as SetupEdit;
    work.edit(edit);
    return { before, after: edit };
  });
}

/** The setup with some changes made anew, as they were made. */
export function redone(setup: Setup, changes: readonly SetupChange[]): Setup {
  return editSetup(
    setup,
    changes.map(({ after }) => after),
  );
}

/** Of some changes what can be taken back, from the last to the first: those whose item still is as it was left. */
export function takenBack(setup: Setup, changes: readonly SetupChange[]): { edits: SetupEdit[]; kept: number } {
  const work = new SetupInWork(setup);
  const edits: SetupEdit[] = [];
  for (const { before, after } of changes)
    if (JSON.stringify(work.now(after)?.item ?? null) === JSON.stringify(after.item)) edits.push(before);
  return { edits: edits.reverse(), kept: changes.length - edits.length };
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
