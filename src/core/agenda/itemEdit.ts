// Changing tasks and appointments one by one, so that each change can be journalled and undone by itself.
import { z } from 'zod';
import { inSeconds, itemSchema, type Item } from './item';

const uidSchema = z.string().min(1).max(1_000);

/** One change: the item as it is to be, or null where it goes. */
export const itemEditSchema = z.object({ uid: uidSchema, item: itemSchema.nullable() });
export type ItemEdit = z.infer<typeof itemEditSchema>;

/** A change and what was there before. */
export const itemChangeSchema = z.object({
  uid: uidSchema,
  before: itemSchema.nullable(),
  after: itemSchema.nullable(),
});
export type ItemChange = z.infer<typeof itemChangeSchema>;

type Items = ReadonlyMap<string, Item>;

/** Some edits with what was there before each: of several of one item the last counts. */
export function withBefore(items: Items, edits: readonly ItemEdit[]): ItemChange[] {
  const last = new Map(edits.map(({ uid, item }) => [uid, item]));
  return [...last].map(([uid, after]) => ({ uid, before: items.get(uid) ?? null, after: after && inSeconds(after) }));
}

/** Of some changes what can be taken back: those whose item still is as it was left. */
export function itemsTakenBack(items: Items, changes: readonly ItemChange[]): { edits: ItemEdit[]; kept: number } {
  const now = new Map<string, Item | null>();
  const edits = new Map<string, ItemEdit>();
  let kept = 0;
  for (const { uid, before, after } of changes.toReversed()) {
    const item = now.get(uid) ?? items.get(uid) ?? null;
    if (JSON.stringify(item) !== JSON.stringify(after)) {
      kept++;
      continue;
    }
    now.set(uid, before);
    edits.set(uid, { uid, item: before });
  }
  return { edits: [...edits.values()], kept };
}
