// The two pictures of a conversation: the stack, by time, and the tree, by who answered whom.

/** A message within its conversation. */
export interface Member {
  id: number;
  /** The id of what it answers; null for a beginning. May be of a message that is not among the members. */
  parent: number | null;
  /** Milliseconds since 1970. */
  date: number;
}

/** A member at its spot in a picture. `depth` from 0; always 0 in the stack. */
export interface Placed<T extends Member> {
  member: T;
  depth: number;
}

const older = (a: Member, b: Member): number => a.date - b.date || a.id - b.id;

/** By time, oldest or newest first. */
export function stack<T extends Member>(members: readonly T[], newestFirst: boolean): Placed<T>[] {
  const sorted = members.toSorted(older);
  return (newestFirst ? sorted.reverse() : sorted).map((member) => ({ member, depth: 0 }));
}

/** Each message above its answers; beginnings and answers to one message by time, oldest or newest first. */
export function tree<T extends Member>(members: readonly T[], newestFirst: boolean): Placed<T>[] {
  const here = new Set(members.map((m) => m.id));
  const answers = new Map<number | null, T[]>();
  for (const { member } of stack(members, newestFirst)) {
    const parent = member.parent !== null && here.has(member.parent) ? member.parent : null;
    const list = answers.get(parent);
    if (list) list.push(member);
    else answers.set(parent, [member]);
  }
  const out: Placed<T>[] = [];
  // A stack of our own: five thousand answers in a row are deeper than a program may call itself.
  const open: Placed<T>[] = [];
  const openUnder = (parent: number | null, depth: number) => {
    for (const member of (answers.get(parent) ?? []).toReversed()) open.push({ member, depth });
  };
  openUnder(null, 0);
  for (let next = open.pop(); next; next = open.pop()) {
    out.push(next);
    openUnder(next.member.id, next.depth + 1);
  }
  return out;
}
