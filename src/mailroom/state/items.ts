// Tasks and appointments in memory. They stand in the meta record as one text, made anew only where one changed, and are taken
// apart only once somebody asks: opening does not wait for them.
import { itemSchema, type Item } from '../../core/agenda/item';
import type { ItemChange } from '../../core/agenda/itemEdit';

export class Items {
  private text = '';
  private read: Map<string, Item> | null = null;
  /** What can’t be read, as it was stored: it is written again as it is. */
  private odd: unknown[] = [];
  private byMessage: Map<string, string[]> | null = null;

  /** `told` hears of what can’t be read. */
  constructor(private readonly told: (says: string) => void) {}

  /** Takes over what was stored. */
  takeUp(text: string): void {
    this.text = text;
    this.read = null;
    this.odd = [];
    this.byMessage = null;
  }

  /** All, by their UIDs. */
  get all(): ReadonlyMap<string, Item> {
    return this.taken();
  }

  private taken(): Map<string, Item> {
    if (this.read) return this.read;
    const read = new Map<string, Item>();
    this.read = read;
    for (const stored of this.text === '' ? [] : (JSON.parse(this.text) as unknown[])) {
      const item = itemSchema.safeParse(stored);
      if (item.success) read.set(item.data.uid, item.data);
      else this.odd.push(stored);
    }
    if (this.odd.length > 0)
      this.told(
        `${this.odd.length === 1 ? 'One task or appointment' : `${this.odd.length} tasks and appointments`} could not be read; it is kept as it is.`,
      );
    return read;
  }

  /** Sets what changes say. Absolute: done twice it is done once. */
  apply(changes: readonly ItemChange[] | null): void {
    if (!changes || changes.length === 0) return;
    const read = this.taken();
    for (const { uid, after } of changes)
      if (after) read.set(uid, after);
      else read.delete(uid);
    this.text = '';
    this.byMessage = null;
  }

  /** As it is stored. */
  stored(): string {
    const { read } = this;
    if (this.text === '' && read && read.size + this.odd.length > 0)
      this.text = JSON.stringify([...read.values(), ...this.odd]);
    return this.text;
  }

  /** The UIDs of what a message is kept with. */
  of(messageId: string): readonly string[] {
    if (messageId === '') return [];
    if (!this.byMessage) {
      this.byMessage = new Map();
      for (const { uid, messages } of this.all.values())
        for (const id of messages) this.byMessage.set(id, [...(this.byMessage.get(id) ?? []), uid]);
    }
    return this.byMessage.get(messageId) ?? [];
  }
}
