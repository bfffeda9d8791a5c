// The mailbox: state in memory, the journal before it, storage behind it.
//
// A command is written to the journal first, then applied; the journal record says everything absolutely, so applying
// it twice is applying it once. State packs follow behind, and `meta` says up to which record they are complete. After
// a crash the records beyond that are applied again. The journal alone can rebuild all state.
import { emptySetup, type Setup } from '../../core/line/setup';
import { InTurn } from '../../core/data/inTurn';
import type { Bits } from '../../core/data/bits';
import { MessageTable } from '../../core/rules/messageTable';
import type { ReadingProgress } from '../border/overview';
import type { KeptEnvelope } from '../storage/keptEnvelope';
import { StateColumns } from '../state/columns';
import { DeepAnswers } from '../search/deepConditions';
import { DaysSeen } from '../state/daysSeen';
import { Derived } from '../state/derived';
import { headOf, readHeads, type JournalHead } from '../state/journalHead';
import { DraftStore } from '../storage/draftStore';
import { EnvelopeStore } from '../storage/envelopeStore';
import { Finding } from '../search/finding';
import { JunkRoom } from '../junk/junkFilter';
import { People } from '../state/people';
import { Redundancy } from '../search/redundancy';
import { metaOf, takeUpMeta } from '../state/meta';
import { lookThrough, lostWords } from '../state/damaged';
import { readState, type ReadState } from '../state/readState';
import { replay } from '../state/replay';
import { Items } from '../state/items';
import { SenderIndex } from '../state/senderIndex';
import { RawStore } from '../storage/rawStore';
import type { StoredMessage } from '../../core/mail/message';
import { recordOf, type Commit, type JournalRecord } from '../storage/journal';
import { keyOf, statePackSize } from '../storage/keys';
import { redone } from '../../core/line/setupEdit';
import { storageTrouble, type RecordStore } from '../storage/recordStore';
import { Records } from '../storage/records';
import { StorageWatch } from '../storage/storageWatch';
import { Storing, type Writes } from '../storage/storing';
import type { DeletedMessage } from '../state/mailState';
import { expunged, Tables } from '../state/internedTables';
import { readImporting, type Importing } from '../storage/importing';
import { missingMessages, stockOf, type Stock } from '../storage/stock';
import { putUnknown, unknownAfter, type Unknown } from '../commands/putUnknown';
import { Lasting } from '../time/lasting';
import { messages } from '../../core/text/sentences';
import { TextStore } from '../search/textStore';
import { Views } from '../search/views';
import { NotWritten } from '../storage/committing';
import { Reader, type TakingApart } from '../reading/reader';

/** When the rest is read at the latest, in milliseconds: the first rows come before it, also from a slow disk. */
const latestRest = 1_000;

/** The mailbox of one person in one browser. One at a time may be open on a store. */
export class Mailbox {
  readonly columns = new StateColumns();
  readonly raws: RawStore;
  readonly reader: Reader;
  readonly drafts: DraftStore;
  readonly envelopes: EnvelopeStore;
  readonly derived: Derived;
  readonly junk: JunkRoom;
  readonly people: People;
  readonly deep: DeepAnswers;
  readonly text: TextStore;
  readonly finding: Finding;
  readonly senderIndex: SenderIndex;
  readonly redundancy: Redundancy;
  /** The ids of damaged messages; complete once `ready()` is settled. */
  readonly damaged = new Set<number>();
  readonly troubles: string[] = [];
  readonly heads: JournalHead[] = [];
  readonly commands = new Set<string>();
  readonly deletedLately = new Map<number, DeletedMessage>();
  tables = new Tables();
  views: Views;
  setup: Setup = emptySetup;
  cursor: string | null = null;
  postOn = false;
  agedAt = 0;
  /** The moment up to which flags that fell due were told of; 0 for never. */
  remindedAt = 0;
  readonly daysSeen = new DaysSeen();
  readonly items = new Items((says) => this.tell(says));
  revision = 0;
  filling = 0;
  seq = 0;
  /** The first record of the journal that is kept. */
  first = 1;
  /** The last record of the journal whose messages, deleted for good, are gone from all that is stored. */
  erasedTo = 0;
  /** The import that was cut off when the mailbox was last closed. */
  cutOff: Importing | null = null;
  /** Whether the disk is full, or the browser has dropped what it stored: nothing more is written then. */
  readonly storage = new StorageWatch(() => {
    if (this.storage.isLost) this.storing.close();
    this.bump();
  });

  /** How many messages the applied commands have made: a command being written has grown the columns already. */
  private counted = 0;
  readonly records: Records;
  private readonly storing: Storing;
  private closed = false;
  private atOpening = 0;
  private readonly turns = new InTurn();
  /** What conditions were found to hold for, under the accounts or the Register by which they go (candidates.ts). */
  asked = new WeakMap<object, Map<string, Bits>>();
  private readonly table = new MessageTable((id) => this.envelopes.get(id));
  /** Begins to read what the first rows don't need; settled once that may be. */
  beginRest: () => void = () => undefined;
  readonly restBegun = new Promise<void>((resolve) => (this.beginRest = resolve));
  private journalLoaded = new Lasting(() => Promise.resolve());
  private envelopesLoaded = new Lasting(() => Promise.resolve());
  private allLoaded = new Lasting(() => Promise.resolve());

  private constructor(
    store: RecordStore,
    readonly now: () => number,
    private readonly changed: () => void,
    parsing: TakingApart,
    private readonly reading: (progress: ReadingProgress) => void,
  ) {
    this.records = new Records(store, now, (says) => this.tell(says));
    const { records } = this;
    this.storing = new Storing(records, {
      packs: (packs) => packs.map((pack) => [keyOf.state(pack), this.columns.pack(pack)]),
      meta: () => this.meta(),
      anew: () => [...this.derived.takeDirty(), ...this.text.takeDirty(), ...this.junk.takeDirty()],
      trouble: (says) => this.tell(says),
    });
    this.derived = new Derived(records);
    this.junk = new JunkRoom(this);
    this.people = new People(this);
    this.deep = new DeepAnswers(this);
    this.finding = new Finding(this, () => (this.views.changed(), this.bump()));
    this.redundancy = new Redundancy(this);
    this.views = new Views(this);
    this.raws = new RawStore(records);
    this.drafts = new DraftStore(records, now);
    this.reader = new Reader(this.raws, parsing);
    this.text = new TextStore(records, this.raws, parsing.parse, (done, total) =>
      reading({ what: 'texts', done, total }),
    );
    this.envelopes = new EnvelopeStore(records, this.raws, (stored) => this.reader.envelopeOf(stored));
    this.senderIndex = new SenderIndex(this.envelopes);
  }

  /**
   * Opens what is stored. `now` is the clock in milliseconds since 1970; `changed` is called at every new revision,
   * `reading` while messages are read into memory; `parsing` takes messages apart. Throws NewerStorage where a newer
   * version wrote it.
   */
  static async open(
    store: RecordStore,
    now: () => number,
    changed: () => void,
    parsing: TakingApart,
    reading: (progress: ReadingProgress) => void = () => undefined,
  ): Promise<Mailbox> {
    const mailbox = new Mailbox(store, now, changed, parsing, reading);
    await mailbox.load();
    return mailbox;
  }

  private async load(): Promise<void> {
    let derived: ReturnType<Derived['fetch']> = Promise.resolve([]);
    const cutOff = readImporting(this.records).then((importing) => void (this.cutOff = importing));
    const hearing = { begun: (count: number) => (derived = this.derived.fetch(count)), reach: this.reach };
    const [state] = await Promise.all([readState(this.records, this.columns, hearing), cutOff]);
    const { meta, from } = state;
    this.first = state.first;
    if (meta) {
      takeUpMeta(this, meta);
      this.counted = meta.count;
    }
    const unknown = await this.replay(state);
    this.derived.setAccounts(this.setup.accounts);
    this.derived.load(this.columns.count, await derived);
    this.views.rebuild();
    this.revision = this.seq;
    this.atOpening = this.columns.count;
    if (unknown.ids.length) await this.exclusive(() => putUnknown(this, unknown));
    this.journalLoaded = new Lasting(() => {
      this.beginRest();
      return this.loadHeads(from);
    });
    this.envelopesLoaded = new Lasting(() => this.journalLoaded.get().then(() => this.loadEnvelopes()));
    this.allLoaded = new Lasting(() => this.envelopesLoaded.get().then(() => this.loadFollowing()));
    // What it fails by is told when it is asked for.
    void this.restBegun.then(() => this.allLoaded.get()).catch(() => undefined);
    if (this.seq > 0 && this.daysSeen.see(this.now())) this.storeSoon();
    setTimeout(this.beginRest, latestRest);
  }

  /** Settled once each is in memory, and what stands before it. Whoever waits for one makes it begin. */
  readonly journalReady = (): Promise<void> => this.journalLoaded.get();
  readonly envelopesReady = (): Promise<void> => this.envelopesLoaded.get();
  readonly ready = (): Promise<void> => this.allLoaded.get();

  /** Applies the journal's records that state packs don't hold. Returns the messages of which it is not known how they came in. */
  private async replay(state: ReadState): Promise<Unknown> {
    const replayed = await replay(this, state, {
      apply: (record) => this.apply(record),
      reach: async (count) => this.reach(await stockOf(this.records), count),
    });
    this.seq = state.last;
    this.counted = this.columns.count;
    const wrong = this.tables.setRight(this.columns);
    if (wrong) this.tell(`${messages(wrong)} stood in places or bore labels of which no record is left.`);
    return unknownAfter(replayed.unknown, replayed.changes);
  }

  /** How many messages there are bytes or envelopes of, at least `count`. */
  private readonly reach = async (stock: Stock, count = 0): Promise<number> =>
    this.envelopes.reach(stock, await this.raws.reach(stock, count));

  private readonly tellLost = (count: number) => count > 0 && this.tell(lostWords(count));

  /** Reads the Logbook's entries, which the first rows don't need. */
  private async loadHeads(replayedFrom: number): Promise<void> {
    const heads = await readHeads(this.records, this.first, replayedFrom);
    this.heads.unshift(...heads);
    for (const head of heads) {
      this.commands.add(head.command);
      this.daysSeen.see(head.at);
    }
    this.bump();
  }

  private loadEnvelopes(): Promise<void> {
    const { count } = this.columns;
    const tell = (done: number) => this.text.isReading || this.reading({ what: 'rows', done, total: count });
    return this.envelopes.ensureAll(count, tell);
  }

  /** Looks through what was read, and threads it: after what is being searched for by then. */
  private async loadFollowing(): Promise<void> {
    await this.finding.underWay();
    const stock = await stockOf(this.records);
    const missing = missingMessages(stock, this.atOpening);
    this.tellLost(missing.filter((id) => this.columns.place[id] !== expunged).length);
    this.tellLost(await lookThrough(this, stock, this.atOpening));
    await this.people.ready();
    await this.rebuildDerived();
  }

  /** Threads all messages and finds their accounts and kinds, from their envelopes. */
  private async rebuildDerived(): Promise<void> {
    const { columns, derived, envelopes } = this;
    const threaded = await derived.threaded(
      columns.count,
      (id) => envelopes.get(id),
      (id) => columns.date[id],
    );
    // At one stroke with what follows from it: nobody sees rows of the one and conversations of the other.
    const changed = derived.take(threaded);
    this.views.changed();
    this.bump();
    if (changed) this.storeSoon();
  }

  async readyToSort(setup: Setup, wanted?: () => boolean): Promise<void> {
    const { readyToSort } = await import('../search/candidates');
    await readyToSort(this, setup, wanted);
  }

  /** The envelopes in columns, for asking a condition of all at once. Only after {@link ready}. */
  envelopeTable(): MessageTable {
    this.table.grow(this.columns.count);
    return this.table;
  }

  /** Tells the person of a trouble, once. */
  tell(says: string): void {
    if (this.troubles.includes(says)) return;
    this.troubles.push(says);
    this.bump();
  }

  private bump(): void {
    this.revision++;
    this.changed();
  }

  private apply(record: JournalRecord): void {
    this.tables.replay(record.intern);
    if (record.add) {
      this.columns.grow(record.add.first + record.add.count);
      this.counted = this.columns.count;
    }
    if (record.change) {
      this.columns.apply(record.change.ids, record.change.after);
      for (const id of record.change.ids) this.storing.changed(Math.floor(id / statePackSize));
      if (record.change.after.bits !== undefined) this.junk.changed(record.change.ids);
    }
    this.items.apply(record.items ?? null);
    if (record.setup) this.setup = redone(this.setup, record.setup);
    if (record.cursor !== null) this.cursor = record.cursor;
    if (record.postOn !== null) this.postOn = record.postOn;
    this.heads.push(headOf(record));
    this.daysSeen.see(record.at);
    this.commands.add(record.command);
  }

  /** Runs one command after another: none sees another half done. */
  exclusive<T>(work: () => Promise<T>): Promise<T> {
    return this.turns.do(() => {
      if (this.closed) throw new NotWritten('Everything was deleted meanwhile, so nothing was done.');
      return work();
    });
  }

  /** Stores the bytes and envelopes of messages that a command is about to add. Throws NotWritten. */
  async writeMessages(
    first: number,
    stored: readonly StoredMessage[],
    envelopes: readonly KeptEnvelope[],
  ): Promise<void> {
    try {
      await Promise.all([this.raws.append(first, stored), this.envelopes.append(first, envelopes)]);
    } catch (error) {
      throw new NotWritten(storageTrouble(error));
    }
  }

  /** Writes a command to the journal, then applies it. Only within {@link exclusive}. Throws NotWritten. */
  async commit(commit: Commit): Promise<number> {
    const seq = this.seq + 1;
    const intern = this.tables.takeNew();
    if (commit.add) this.columns.grow(commit.add.first + commit.add.count);
    const { columns, setup, items } = this;
    const content = recordOf(commit, { seq, at: this.now(), columns, setup, items, intern });
    try {
      await this.records.write(keyOf.journal(seq), content);
    } catch (error) {
      this.tables.giveBack(intern);
      if (commit.add) await this.takeBack(commit.add.first);
      throw new NotWritten(storageTrouble(error));
    }
    this.seq = seq;
    this.apply(content);
    if (commit.add) this.views.insert(content.change?.ids ?? new Int32Array(0));
    this.views.changed();
    this.bump();
    this.storeSoon();
    if (commit.setup?.some((edit) => edit.list === 'accounts')) {
      this.derived.setAccounts(this.setup.accounts);
      await this.ready();
      await this.rebuildDerived();
    }
    return seq;
  }

  /** Forgets messages that could not be written. */
  async takeBack(count: number): Promise<void> {
    this.columns.count = count;
    this.derived.drop(count);
    this.text.drop(count);
    this.table.drop(count);
    this.asked = new WeakMap();
    this.finding.forget();
    this.senderIndex.drop(count);
    this.redundancy.forget();
    this.people.changed();
    await this.rebuildDerived();
  }

  /** Forgets the `n` oldest entries of the Logbook: the journal begins with record `first` from now on. */
  letGo(n: number, first: number): void {
    this.heads.splice(0, n);
    this.first = first;
    this.bump();
  }

  /** Writes nothing any more: its store was cleared, or belongs to another now. */
  close(): void {
    this.closed = true;
    this.storing.close();
    this.records.close();
  }

  /** Has what changed stored before long. */
  storeSoon(): void {
    this.storing.soon();
  }

  /** Writes everything that is not written yet. */
  flush(): Promise<void> {
    return this.storing.flush();
  }

  /** What the meta record says now. */
  meta(): Writes[number] {
    return [keyOf.meta, metaOf(this, this.counted)];
  }
}
