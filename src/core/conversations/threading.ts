// Conversations: messages tied by reply, by the REFERENCES algorithm of RFC 5256 made for mail that goes on arriving.
//
// Each message is a node of a tree under what it answers; a message that others refer to and that never came is a node
// without one. Taking in one message changes only its own tree, so that nothing is ever threaded anew.
//
// The RFC's subject step joins all trees of one base subject. Here it is guarded: thirty messages called “Invoice”
// from different people are thirty conversations. Two trees are joined by subject only if
//   - at least one of the two is a reply or forward by its subject,
//   - they lie at most thirty days apart, and a reply is not older than what it answers,
//   - and they are of the same people: both of one mailing list, both of one sender, or one addressed to the sender of
//     the other, who in turn wrote to its sender or has a further recipient in common with it.
import { baseSubject } from './baseSubject';

/** What threading needs of a message. Addresses in a form that can be compared. */
export interface Threadable {
  messageId: string;
  /** Oldest first. */
  references: readonly string[];
  subject: string;
  /** Milliseconds since 1970. */
  date: number;
  from: string;
  recipients: readonly string[];
  listId: string;
}

/** How subjects join trees: not at all, as RFC 5256 has it, or with the guard above. */
export type SubjectStep = 'none' | 'plain' | 'guarded';

const day = 86_400_000;
/** How far apart messages may lie that are joined by their subject alone (common practice, no source). */
const longestSilence = 30 * day;
/** Clocks differ: a reply may seem older than what it answers by this much. */
const clocksDiffer = day;
/** Of one subject and sender only so many are looked at, the last ones: a machine's thousand alarms cost nothing. */
const mostAlike = 8;
/** Recipients looked at when joining by subject; a mailing to thousands is no exchange. */
export const mostRecipients = 32;

/**
 * In a conversation of more messages than this, nothing is tied anew: what would change the place or the number of all of
 * them stays as it is, so that ten thousand messages sent for that cost no more than others.
 */
const mostTiedAnew = 1_000;

const none = -1;

/** What the subject step keeps of a message. */
interface Subject extends Pick<Threadable, 'date' | 'from' | 'recipients' | 'listId'> {
  base: number;
  reply: boolean;
}

/** Numbers for texts, from 1 up; 0 is the empty text. */
class Numbering {
  private readonly numbers = new Map<string, number>();

  of(text: string): number {
    if (text === '') return 0;
    let number = this.numbers.get(text);
    if (number === undefined) {
      number = this.numbers.size + 1;
      this.numbers.set(text, number);
    }
    return number;
  }

  /** The number of a text that has one already, else 0. */
  known(text: string): number {
    return this.numbers.get(text) ?? 0;
  }
}

/** A subject and a person in one number that is still exact: each below 2^26. */
const keyOf = (base: number, person: number): number => base * 2 ** 26 + person;

/** All conversations of a mailbox. Messages are numbered 0, 1, 2 … in the order in which they are added. */
export class Conversations {
  private readonly byId = new Map<string, number>();
  /** Of each node: its message or none, what it hangs under, its first child, the next child of the same parent. */
  private readonly message: number[] = [];
  private readonly up: number[] = [];
  private readonly down: number[] = [];
  private readonly beside: number[] = [];
  /** The tree of each node; of each tree its root, how many nodes it has, and its lowest message or none. */
  private readonly tree: number[] = [];
  private readonly root: number[] = [];
  private readonly size: number[] = [];
  private readonly lowest: number[] = [];
  private readonly nodes: number[] = [];
  /** The last entry of one subject and sender or list, replies and others apart; each entry leads to the one before. */
  private readonly lastAlike = { replies: new Map<number, number>(), others: new Map<number, number>() };
  private readonly entryMessage: number[] = [];
  private readonly entryBefore: number[] = [];
  private readonly facts: (Subject | null)[] = [];
  private readonly bases = new Numbering();
  private readonly people = new Numbering();
  private changed: number[] = [];

  constructor(private readonly subjectStep: SubjectStep = 'guarded') {}

  /** How many messages were added. */
  get count(): number {
    return this.nodes.length;
  }

  /** The conversation of a message: the lowest number of its messages. */
  conversation(message: number): number {
    return this.lowest[this.tree[this.nodes[message]]];
  }

  /** The message that this one answers, or the nearest above it that is here; -1 where it begins a conversation. */
  parent(message: number): number {
    let node = this.up[this.nodes[message]];
    while (node !== none && this.message[node] === none) node = this.up[node];
    return node === none ? none : this.message[node];
  }

  /** The messages of a message's conversation, in the order in which they were added. */
  members(message: number): number[] {
    const out: number[] = [];
    this.walk(this.root[this.tree[this.nodes[message]]], (node) => {
      if (this.message[node] !== none) out.push(this.message[node]);
    });
    return out.sort((a, b) => a - b);
  }

  /**
   * Adds the next message; the numbers of all messages whose conversation or parent may have changed, itself first.
   * Steps 1 and 5 of RFC 5256, REFERENCES.
   */
  add(mail: Threadable): number[] {
    const number = this.nodes.length;
    this.changed = [number];
    let node = mail.messageId ? this.nodeOf(mail.messageId) : this.newNode();
    let twin = none;
    if (this.message[node] !== none) {
      // The same Message-ID again, as a list's copy of what stands in Sent: a node of its own beside its twin.
      twin = node;
      node = this.newNode();
    }
    this.message[node] = number;
    this.nodes.push(node);
    // The highest number of all: the lowest of its tree only where that has no other.
    if (this.lowest[this.tree[node]] === none) this.lowest[this.tree[node]] = number;
    // What hung under the missing message has found its parent.
    for (let child = this.down[node]; child !== none; child = this.beside[child]) this.noteNearest(child);
    this.tie(node, mail.references);
    if (twin !== none && this.up[node] === none) this.link(node, twin);
    if (this.subjectStep !== 'none') this.joinBySubject(node, number, mail);
    return this.changed;
  }

  /** Step 1: ties the references to each other, and the message to the last of them. */
  private tie(node: number, references: readonly string[]): void {
    let last = none;
    for (const id of references) {
      const next = this.nodeOf(id);
      if (next === node) continue;
      if (last !== none && this.up[next] === none) this.link(next, last);
      last = next;
    }
    if (last === none || this.up[node] === last || this.isBelow(last, node)) return;
    if (this.up[node] !== none) {
      if (this.size[this.tree[node]] > mostTiedAnew) return;
      this.unlink(node);
    }
    this.link(node, last);
  }

  private nodeOf(id: string): number {
    let node = this.byId.get(id);
    if (node === undefined) {
      node = this.newNode();
      this.byId.set(id, node);
    }
    return node;
  }

  private newNode(): number {
    const node = this.message.length;
    this.message.push(none);
    this.up.push(none);
    this.down.push(none);
    this.beside.push(none);
    this.tree.push(this.root.length);
    this.root.push(node);
    this.size.push(1);
    this.lowest.push(none);
    return node;
  }

  private walk(from: number, visit: (node: number) => void): void {
    const open = [from];
    for (let node = open.pop(); node !== undefined; node = open.pop()) {
      visit(node);
      for (let child = this.down[node]; child !== none; child = this.beside[child]) open.push(child);
    }
  }

  /** Whether `node` hangs below `above`, or is it. */
  private isBelow(node: number, above: number): boolean {
    if (this.tree[node] !== this.tree[above]) return false;
    if (this.down[above] === none) return node === above;
    for (let at = node; at !== none; at = this.up[at]) if (at === above) return true;
    return false;
  }

  /** Hangs the root of one tree under a node; nothing where that would make a circle. */
  private link(child: number, parent: number): void {
    if (this.isBelow(parent, child)) return;
    if (this.tree[parent] !== this.tree[child]) {
      if (this.renumbered(this.tree[parent], this.tree[child]) > mostTiedAnew) return;
      this.unite(this.tree[parent], this.tree[child]);
    }
    this.beside[child] = this.down[parent];
    this.down[parent] = child;
    this.up[child] = parent;
    this.noteNearest(child);
  }

  /** How many messages of the larger of two trees would get the number of the smaller. */
  private renumbered(above: number, below: number): number {
    const [larger, smaller] = this.size[above] >= this.size[below] ? [above, below] : [below, above];
    const [its, other] = [this.lowest[larger], this.lowest[smaller]];
    return its !== none && other !== none && other < its ? this.size[larger] : 0;
  }

  /** Makes one tree of two; the smaller takes the number of the larger, so that joining many costs little. */
  private unite(above: number, below: number): void {
    const [larger, smaller] = this.size[above] >= this.size[below] ? [above, below] : [below, above];
    const [a, b] = [this.lowest[above], this.lowest[below]];
    const lowest = a === none || b === none ? Math.max(a, b) : Math.min(a, b);
    if (this.lowest[larger] !== none && this.lowest[larger] !== lowest) this.noteTree(this.root[larger]);
    this.walk(this.root[smaller], (node) => {
      this.tree[node] = larger;
      if (this.message[node] !== none) this.changed.push(this.message[node]);
    });
    this.root[larger] = this.root[above];
    this.size[larger] = this.size[above] + this.size[below];
    this.lowest[larger] = lowest;
  }

  private noteTree(root: number): void {
    this.walk(root, (node) => void (this.message[node] !== none && this.changed.push(this.message[node])));
  }

  /** Notes the messages whose parent is decided at this node: it, or those below where it is of none. */
  private noteNearest(node: number): void {
    const open = [node];
    for (let at = open.pop(); at !== undefined; at = open.pop())
      if (this.message[at] !== none) this.changed.push(this.message[at]);
      else for (let child = this.down[at]; child !== none; child = this.beside[child]) open.push(child);
  }

  /** Takes a subtree out of its tree: it is one of its own again. */
  private unlink(child: number): void {
    const parent = this.up[child];
    let at = this.down[parent];
    if (at === child) this.down[parent] = this.beside[child];
    else {
      while (this.beside[at] !== child) at = this.beside[at];
      this.beside[at] = this.beside[child];
    }
    this.up[child] = none;
    this.beside[child] = none;
    this.noteNearest(child);
    const left = this.tree[child];
    this.root.push(child);
    for (const [tree, root] of [
      [left, this.root[left]],
      [this.root.length - 1, child],
    ]) {
      this.size[tree] = 0;
      this.lowest[tree] = none;
      this.walk(root, (node) => {
        this.tree[node] = tree;
        this.size[tree]++;
        const message = this.message[node];
        if (message === none) return;
        this.changed.push(message);
        if (this.lowest[tree] === none || message < this.lowest[tree]) this.lowest[tree] = message;
      });
    }
  }

  /** Step 5: joins the tree of a new message to another by subject. */
  private joinBySubject(node: number, number: number, mail: Threadable): void {
    const { base, reply } = baseSubject(mail.subject);
    if (base === '') {
      this.facts.push(null);
      return;
    }
    const { date, from, recipients, listId } = mail;
    const facts: Subject = { base: this.bases.of(base), reply, date, from, recipients, listId };
    this.facts.push(facts);
    // Only the tops of trees are joined (step 5.B): a message that hangs under one that is here has its place.
    if (this.parent(number) === none) {
      const found = this.subjectStep === 'plain' ? this.plainMatch(facts.base) : this.guardedMatch(facts, number);
      if (found !== none) this.join(node, reply, found);
    }
    if (this.subjectStep === 'plain') this.remember(keyOf(facts.base, 0), false, number);
    else {
      this.remember(keyOf(facts.base, this.people.of(mail.from)), reply, number);
      if (mail.listId) this.remember(keyOf(facts.base, this.people.of(listName(mail.listId))), reply, number);
    }
  }

  private remember(key: number, reply: boolean, number: number): void {
    const map = reply ? this.lastAlike.replies : this.lastAlike.others;
    this.entryBefore.push(map.get(key) ?? none);
    map.set(key, this.entryMessage.length);
    this.entryMessage.push(number);
  }

  private plainMatch(base: number): number {
    const entry = this.lastAlike.others.get(keyOf(base, 0));
    return entry === undefined ? none : this.entryMessage[entry];
  }

  /** The newest message of the same subject and people, of which one of the two is a reply; -1 where there is none. */
  private guardedMatch(facts: Subject, number: number): number {
    const { from, recipients, listId } = facts;
    let best = this.newestWith(facts, number, from, none);
    for (let i = 0; i < recipients.length && i < mostRecipients; i++)
      if (recipients[i] !== from) best = this.newestWith(facts, number, recipients[i], best);
    return listId ? this.newestWith(facts, number, listName(listId), best) : best;
  }

  private newestWith(facts: Subject, number: number, person: string, best: number): number {
    const known = this.people.known(person);
    if (known === 0) return best;
    const key = keyOf(facts.base, known);
    const found = this.newestOf(facts, number, this.lastAlike.replies.get(key), best);
    return facts.reply ? this.newestOf(facts, number, this.lastAlike.others.get(key), found) : found;
  }

  private newestOf(facts: Subject, number: number, last: number | undefined, best: number): number {
    let entry = last ?? none;
    for (let looked = 0; entry !== none && looked < mostAlike; looked++, entry = this.entryBefore[entry]) {
      const other = this.entryMessage[entry];
      const its = this.facts[other];
      const newer = its && (best === none || its.date > (this.facts[best]?.date ?? 0));
      if (newer && this.mayJoin(facts, number, its, other)) best = other;
    }
    return best;
  }

  /** Whether time and people let two messages of one subject be joined that are not of one tree yet. */
  private mayJoin(a: Subject, number: number, b: Subject, other: number): boolean {
    const later = a.date - b.date;
    if (Math.abs(later) > longestSilence) return false;
    if ((a.reply && !b.reply && later < -clocksDiffer) || (!a.reply && b.reply && -later < -clocksDiffer)) return false;
    return this.tree[this.nodes[number]] !== this.tree[this.nodes[other]] && samePeople(a, b);
  }

  private join(node: number, reply: boolean, other: number): void {
    const root = this.root[this.tree[node]];
    const otherRoot = this.root[this.tree[this.nodes[other]]];
    if (root === otherRoot) return;
    const otherReply = this.facts[other]?.reply ?? false;
    if (reply && !otherReply) this.link(root, this.nodes[other]);
    else if (!reply && otherReply && this.parent(other) === none) this.link(otherRoot, node);
    else if (this.message[otherRoot] === none) this.link(root, otherRoot);
    else if (this.message[root] === none) this.link(otherRoot, root);
    else {
      // Two of which neither answers the other: both hang under a message that is not here (step 5.C).
      const above = this.newNode();
      this.link(otherRoot, above);
      this.link(root, above);
    }
  }
}

/** A mailing list among the people: no address has a blank in it. */
const listName = (listId: string): string => `list ${listId}`;

/** Whether two messages of one subject are of the same people. */
function samePeople(a: Subject, b: Subject): boolean {
  if (a.listId !== '' && a.listId === b.listId) return true;
  if (a.from === b.from) return a.from !== '';
  const toB = a.recipients.includes(b.from);
  const toA = b.recipients.includes(a.from);
  if (toA && toB) return true;
  if (!toA && !toB) return false;
  // The one who is answered, or who answers, is part of both as a recipient of the other: a list without a List-Id.
  return a.recipients.some((r) => r !== b.from && r !== a.from && b.recipients.includes(r));
}
