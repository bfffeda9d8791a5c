// Views: which messages a place or label holds, newest first, narrowed and grouped as asked; and the counts of all.
import { kept } from '../../core/data/rows';
import { keepNewest } from '../../core/data/memo';
import type { SavedSearch } from '../../core/search/saved';
import { parseQuery, type Query } from '../../core/search/query';
import type { Bits } from '../../core/data/bits';
import type { LaneWhat } from '../../core/search/lane';
import type { Setup } from '../../core/line/setup';
import { noAccount, type Filter, type Lane, type View } from '../border/views';
import { bit, type StateColumns } from '../state/columns';
import { DateOrder } from '../state/dateOrder';
import type { Derived } from '../state/derived';
import type { Finding } from './finding';
import { expunged, type Tables } from '../state/internedTables';

/** What views are views of. */
export interface ViewSource {
  readonly columns: StateColumns;
  readonly tables: Tables;
  readonly damaged: ReadonlySet<number>;
  readonly derived: Derived;
  readonly finding: Finding;
  readonly setup: Setup;
  /** Settled once everything is in memory. */
  ready(): Promise<void>;
}

type Test = (id: number) => boolean;

/** Filters that were applied and are still looked at; of older ones it is forgotten what was read since. */
const mostApplied = 12;

const isInbox = (view: View): boolean => view.kind === 'place' && view.place === 'inbox';

export class Views {
  private readonly order = new DateOrder();
  private readonly lists = new Map<string, Int32Array>();
  private readonly headLists = new Map<string, Int32Array>();
  private readonly listed = new Map<string, Uint8Array>();
  private readonly found = new Map<string, Bits | null>();
  /** What fitted when a filter was applied: it stays in sight until the filter is applied again. */
  private readonly applied = new Map<string, Uint8Array>();
  /** The same of queries. */
  private readonly appliedFound = new Map<string, Bits>();

  constructor(private readonly source: ViewSource) {}

  /** All messages, also those that are gone; only until the next ones arrive. */
  get newestFirst(): Int32Array {
    return this.order.newestFirst;
  }

  /** Orders all messages anew. */
  rebuild(): void {
    const { date, count } = this.source.columns;
    this.order.rebuild(date, count);
    this.changed();
  }

  /** Takes in messages that arrived. */
  insert(ids: Int32Array): void {
    this.order.insert(ids, this.source.columns.date);
    this.changed();
  }

  /** Forgets what was computed, after any change. */
  changed(): void {
    this.lists.clear();
    this.headLists.clear();
    this.listed.clear();
    this.found.clear();
  }

  /** The ids of a view, newest first. Where it goes by a query only after {@link ready}. */
  list(view: View): Int32Array {
    const key = JSON.stringify(view);
    let list = this.lists.get(key);
    if (!list) {
      const { filter, account, lane, tray, ...whole } = view;
      const narrowing = this.narrowing(account, lane, tray);
      const within = narrowing.length || filter ? this.list(whole as View) : this.newestFirst;
      const tests = narrowing.length || filter ? narrowing : [this.holds(view)];
      list = kept(within, tests.length === 1 ? tests[0] : (id) => tests.every((test) => test(id)));
      if (!narrowing.length && !filter && isInbox(view)) list = this.asDelivered(list);
      if (filter) list = this.filtered(list, key, filter.by, filter.applied);
      this.lists.set(key, list);
    }
    return list;
  }

  /** By what time a message stands in a view: the Inbox goes by delivery, all others by date; milliseconds since 1970. */
  timeIn(view: View): (id: number) => number {
    const { columns } = this.source;
    return isInbox(view) ? (id) => columns.stands(id) : (id) => columns.date[id];
  }

  /** The Inbox as it was delivered: what came back stands where it would if it had come only then. */
  private asDelivered(list: Int32Array): Int32Array {
    const { columns } = this.source;
    const before = (a: number, b: number) => columns.stands(b) - columns.stands(a) || b - a;
    const back = kept(list, (id) => columns.delivered[id] > 0).sort(before);
    if (back.length === 0) return list;
    // Few came back, and the others are in order.
    const out = new Int32Array(list.length);
    let [at, next] = [0, 0];
    for (const id of list) {
      if (columns.delivered[id] > 0) continue;
      while (next < back.length && before(back[next], id) < 0) out[at++] = back[next++];
      out[at++] = id;
    }
    out.set(back.subarray(next), at);
    return out;
  }

  /**
   * The number of the row in which a message stands in a view: below 0 that of its tray, in the Inbox, else that of its
   * conversation where rows are grouped, else its own.
   */
  rowOf(view: View, grouped: boolean): (id: number) => number {
    const { columns, derived, tables, setup } = this.source;
    const { tray } = columns;
    const whole = (id: number) => (grouped ? derived.conversation[id] : id);
    if (!isInbox(view) || view.lane || view.tray !== undefined || setup.trays.length === 0) return whole;
    const known = new Set(setup.trays.map(({ id }) => id));
    // Of a tray that is gone its mail stands by itself.
    const rows = tables.trays.items.map((id, number) => (known.has(id) ? -number : 0));
    return (id) => rows[tray[id]] || whole(id);
  }

  /** The newest message of each row of a view, newest first: of each conversation, where rows are grouped, and each tray. */
  heads(view: View, grouped = true): Int32Array {
    const key = `${grouped} ${JSON.stringify(view)}`;
    let heads = this.headLists.get(key);
    if (!heads) {
      const list = this.list(view);
      const { tray, count } = this.source.columns;
      const row = this.rowOf(view, grouped);
      if (!grouped && !list.some((id) => tray[id] > 0)) return list;
      const seen = new Uint8Array(count);
      const trays = new Set<number>();
      heads = kept(list, (id) => {
        const its = row(id);
        if (its < 0) return trays.size < trays.add(its).size;
        const first = seen[its] === 0;
        seen[its] = 1;
        return first;
      });
      this.headLists.set(key, heads);
    }
    return heads;
  }

  /** The messages of a tray that a view holds, newest first; `row` as {@link rowOf} has it. */
  ofTray(view: View, row: number): Int32Array {
    return kept(this.list(view), (id) => this.source.columns.tray[id] === -row);
  }

  /** Settled once a view can be listed: after a crash what was computed is made anew, and a query looks into messages. */
  async ready(view: View): Promise<void> {
    // What stands in which conversation, and under which account, is not told before it is known.
    if (!this.source.derived.complete) await this.source.ready();
    const { lane } = view;
    const lanes = lane?.by === 'rest' ? lane.lanes : lane ? [lane] : [];
    const queries = lanes.flatMap((what) => this.queryOf(what) ?? []);
    if (view.kind === 'found') queries.push(view.query);
    for (const query of queries) {
      const parsed = parseQuery(query);
      if (parsed.ok) await this.source.finding.ready(parsed.query);
    }
  }

  /** Whether a view can be listed, one row for each message, by the state alone: by nothing that is computed of messages. */
  private isPlain(view: View): boolean {
    const { account, filter, lane, kind } = view;
    if (kind === 'found' || kind === 'damaged' || account !== undefined || lane) return false;
    if (filter?.by === 'alone' || filter?.by === 'attachments') return false;
    return !isInbox(view) || this.source.setup.trays.length === 0;
  }

  /**
   * Settled once a view can be listed so far: what a query finds is told from what was looked through, as long as
   * {@link lookedThrough} says so. After a crash rows of one message each need not wait for what is made anew.
   */
  async readySoFar(view: View, grouped: boolean): Promise<void> {
    if (!grouped && this.isPlain(view)) return;
    const query = this.earlyQuery(view);
    if (!query || !this.source.derived.complete) return this.ready(view);
    await this.source.finding.readySoFar(query);
  }

  /** How many messages were looked through for a view so far; null for all. */
  lookedThrough(view: View): number | null {
    const query = this.earlyQuery(view);
    return query && this.source.finding.lookedThrough(query);
  }

  /** The query of a view that may be answered early; null of all others. */
  private earlyQuery(view: View): Query | null {
    if (view.kind !== 'found' || view.filter || view.lane) return null;
    const parsed = parseQuery(view.query);
    return parsed.ok ? parsed.query : null;
  }

  private filtered(list: Int32Array, key: string, by: Filter, applied: string | null): Int32Array {
    const fits = this.fits(by);
    if (applied === null) return kept(list, fits);
    let stays = this.applied.get(key);
    if (!stays) {
      stays = new Uint8Array(this.source.columns.count);
      for (const id of list) if (fits(id)) stays[id] = 1;
      keepNewest(this.applied, key, stays, mostApplied);
    }
    const standing = stays;
    return kept(list, (id) => standing[id] === 1 || fits(id));
  }

  private fits(by: Filter): Test {
    const { columns, derived } = this.source;
    switch (by) {
      case 'unread':
        return (id) => !(columns.bits[id] & bit.read);
      case 'read':
        return (id) => (columns.bits[id] & bit.read) !== 0;
      case 'flagged':
        return (id) => (columns.bits[id] & bit.flagged) !== 0;
      case 'alone':
        return (id) => derived.kind(id) === 'alone' && !derived.isOwn(id);
      case 'attachments':
        return (id) => derived.hasAttachments(id);
    }
  }

  private narrowing(account?: string, lane?: Lane, tray?: string): Test[] {
    const { columns, tables, derived, setup } = this.source;
    const tests: Test[] = [];
    if (tray !== undefined) {
      const number = tables.trays.items.indexOf(tray);
      tests.push((id) => columns.tray[id] === number);
    }
    if (account !== undefined) {
      const position = setup.accounts.findIndex((a) => a.id === account);
      tests.push(account === noAccount || position >= 0 ? derived.isUnder(position) : () => false);
    }
    if (lane?.by === 'rest') {
      const others = lane.lanes.map((what) => this.inLane(what));
      tests.push((id) => !others.some((test) => test(id)));
    } else if (lane) tests.push(this.inLane(lane));
    return tests;
  }

  private inLane(what: LaneWhat): Test {
    const { derived } = this.source;
    if (what.by === 'kind') return (id) => derived.kind(id) === what.kind;
    if (what.by === 'label') return this.bears(what.label);
    const query = this.queryOf(what);
    const found = query === null ? null : this.foundBy(query);
    const search = what.by === 'search' ? this.searchOf(what.search) : null;
    const within: Test = search?.within ? this.holds(search.within) : () => true;
    return (id) => found?.has(id) === true && within(id);
  }

  private searchOf(id: string): SavedSearch | null {
    return this.source.setup.searches.find((search) => search.id === id) ?? null;
  }

  /** The query by which a lane goes; null where it goes by none, or by a saved search that is gone. */
  private queryOf(what: LaneWhat): string | null {
    if (what.by === 'query') return what.query;
    return what.by === 'search' ? (this.searchOf(what.search)?.query ?? null) : null;
  }

  /** What a query finds; null where it can’t be read. Only after {@link ready}. */
  private foundBy(query: string, applied?: string): Bits | null {
    const key = JSON.stringify([query, applied]);
    let bits = this.found.get(key);
    if (bits === undefined) {
      const parsed = parseQuery(query);
      bits = parsed.ok ? this.source.finding.found(parsed.query) : null;
      // What was found so far is not yet what stays in sight.
      const whole = parsed.ok && this.source.finding.lookedThrough(parsed.query) === null;
      if (bits && applied !== undefined && whole) {
        const first = this.appliedFound.get(key);
        if (first) bits = bits.or(first.grown(bits.length));
        else keepNewest(this.appliedFound, key, bits, mostApplied);
      }
      this.found.set(key, bits);
    }
    return bits;
  }

  private bears(label: string): Test {
    const { columns, tables } = this.source;
    const holding = new Set(tables.labelSets.items.flatMap((set, index) => (set.includes(label) ? [index] : [])));
    return (id) => holding.has(columns.labels[id]);
  }

  /** Whether a message is in a view, with all that narrows it. Only after {@link ready}. */
  listing(view: View): Test {
    if (!view.filter && !view.lane) return this.holding(view);
    const key = JSON.stringify(view);
    let marks = this.listed.get(key);
    if (!marks) {
      marks = new Uint8Array(this.source.columns.count);
      for (const id of this.list(view)) marks[id] = 1;
      this.listed.set(key, marks);
    }
    const standing = marks;
    return (id) => standing[id] === 1;
  }

  /** Whether a message is in a view, whatever filter or lane narrows it. */
  holding(view: View): Test {
    const tests = [this.holds(view), ...this.narrowing(view.account, undefined, view.tray)];
    return (id) => tests.every((test) => test(id));
  }

  private holds(view: View): Test {
    const { columns, tables, damaged } = this.source;
    const { place } = columns;
    if (view.kind === 'place') {
      const wanted = tables.places.items.indexOf(view.place);
      return (id) => place[id] === wanted;
    }
    if (view.kind === 'silenced') return (id) => place[id] !== expunged && (columns.bits[id] & bit.silenced) !== 0;
    if (view.kind === 'damaged') return (id) => place[id] !== expunged && damaged.has(id);
    if (view.kind === 'found') {
      const found = this.foundBy(view.query, view.applied);
      if (!found) return () => false;
      if (!view.within) return (id) => found.has(id) && place[id] !== expunged;
      const within = this.holds(view.within);
      return (id) => found.has(id) && within(id);
    }
    const bears = this.bears(view.label);
    return (id) => place[id] !== expunged && bears(id);
  }

  /** Totals and unread of each place by its index, and of each set of labels by its index. */
  counts(): { total: Int32Array; unread: Int32Array; labelSets: Int32Array; unreadLabelSets: Int32Array } {
    const { place, bits, labels, count } = this.source.columns;
    const total = new Int32Array(this.source.tables.places.items.length);
    const unread = new Int32Array(this.source.tables.places.items.length);
    const labelSets = new Int32Array(this.source.tables.labelSets.items.length);
    const unreadLabelSets = new Int32Array(labelSets.length);
    for (let id = 0; id < count; id++) {
      total[place[id]]++;
      const isUnread = !(bits[id] & bit.read);
      if (isUnread) unread[place[id]]++;
      if (place[id] === expunged) continue;
      labelSets[labels[id]]++;
      if (isUnread) unreadLabelSets[labels[id]]++;
    }
    return { total, unread, labelSets, unreadLabelSets };
  }

  /** Total and unread of one view. */
  countOf(view: View): { total: number; unread: number } {
    const list = this.list(view);
    let unread = 0;
    for (const id of list) if (!(this.source.columns.bits[id] & bit.read)) unread++;
    return { total: list.length, unread };
  }

  /** The newest messages back to a moment, for counts of the day. */
  *since(time: number): Generator<number> {
    for (const id of this.newestFirst) {
      if (this.source.columns.date[id] < time) return;
      yield id;
    }
  }
}
