// Conversations of which some messages are read: what was read is held until the last one is there.
import type { ThinCandidate } from '../../core/conversations/thinning';

/** What was read of a conversation so far; `size` in characters. */
interface Held {
  candidates: ThinCandidate[];
  size: number;
}

const sizeOf = ({ texts, links, files }: ThinCandidate): number =>
  [texts, links, files].flat().reduce((sum, { length }) => sum + length, 0);

export class HeldConversations<C extends { members: readonly number[] }> {
  private readonly held = new Map<C, Held>();
  private readonly gone = new Set<C>();
  private size = 0;

  /** `most`: so many characters are held. */
  constructor(private readonly most: number) {}

  /** Takes in a message of a conversation; all of them where it was the last. */
  add(conversation: C, candidate: ThinCandidate): readonly ThinCandidate[] | null {
    if (this.gone.has(conversation)) return null;
    const held = this.held.get(conversation) ?? { candidates: [], size: 0 };
    this.held.set(conversation, held);
    held.candidates.push(candidate);
    held.size += sizeOf(candidate);
    this.size += sizeOf(candidate);
    if (held.candidates.length < conversation.members.length) return null;
    this.letGo(conversation, held);
    return held.candidates;
  }

  /**
   * Lets go of those that were begun first, and so reach farthest, until no more is held than may be, or one conversation
   * alone. What was shed is not taken in any more.
   */
  shed(): void {
    for (const [conversation, held] of this.held) {
      if (this.size <= this.most || this.held.size === 1) return;
      this.letGo(conversation, held);
      this.gone.add(conversation);
    }
  }

  /** All that were shed. */
  get left(): Iterable<C> {
    return this.gone;
  }

  private letGo(conversation: C, { size }: Held): void {
    this.size -= size;
    this.held.delete(conversation);
  }
}
