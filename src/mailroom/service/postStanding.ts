// How the post office stands, as far as it is known here.
import type { PostStatus } from '../border/overview';
import type { Open } from './host';
import type { Mailbox } from './mailbox';

type Known = Omit<PostStatus, 'on'>;

const nothing: Known = { lastChecked: null, arrived: 0, error: null, perMinute: 0, paused: false };

export class PostStanding {
  private known = nothing;

  constructor(private readonly open: Open) {}

  readonly status = (): PostStatus => ({ ...this.known, on: this.open.mailbox.postOn });

  /** Notes what was learned. */
  note(some: Partial<Known>): void {
    this.known = { ...this.known, ...some };
  }

  /** The same of a check of `mailbox`; of one that was deleted meanwhile nothing is known. */
  noteOf(mailbox: Mailbox, some: Partial<Known>): void {
    this.note(mailbox === this.open.mailbox ? some : { lastChecked: null, arrived: 0, error: null });
  }
}
