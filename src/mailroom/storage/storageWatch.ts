// What became of what a mailbox is stored in, as its store was heard to say.
import type { StorageHearer } from './guarded';

export class StorageWatch implements StorageHearer {
  /** The browser has dropped what it stored. */
  isLost = false;
  /** The disk has no room for more. */
  isFull = false;

  /** `changed`: what hears of either. */
  constructor(private readonly changed: () => void) {}

  readonly lost = (): void => {
    this.isLost = true;
    this.changed();
  };

  readonly full = (now: boolean): void => {
    if (this.isFull === now) return;
    this.isFull = now;
    this.changed();
  };
}
