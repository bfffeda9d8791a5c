// The mailbox: state in memory, the journal before it, storage behind it.
//
// A command is written to the journal first, then applied; the journal record says everything absolutely, so applying
// it twice is applying it once. State packs follow behind, and `meta` says up to which record they are complete. After
// a crash the records beyond that are applied again. The journal alone can rebuild all state.
import { emptySetup, type Setup } from '../core/line/setup';
import type { KeptEnvelope } from './reading';
import { StateColumns } from './columns';
import { EnvelopeStore } from './envelopeStore';
import { RawStore, type StoredMessage } from './rawStore';
import {
  journalSchema,
  keyOf,
  metaSchema,
  NewerStorage,
  readRecord,
  recordVersion,
  statePackSchema,
  statePackSize,
  type Columns,
  type JournalRecord,
} from './records';
import type { SetupEdit } from './api';
import { editSetup } from './setupEdits';
import { storageTrouble, type RecordStore } from './storage';
import { Tables } from './tables';
import { Views } from './views';

/** A journal record without its change: enough for the Logbook and for “Why here”. */
export interface JournalHead {
  seq: number;
  command: string;
  at: number;
  by: JournalRecord['by'];
  says: string;
  undoes: number | null;
  final: boolean;
  count: number;
  /** The messages it touched; null where it touched only the setup. */
  ids: Int32Array | null;
  /** Whether it moved messages or brought them in. */
  moved: boolean;
  added: boolean;
}

/** What a command is to write. */
export interface Commit {
  command: string;
  by: JournalRecord['by'];
  says: string;
  undoes?: number;
  final?: boolean;
  add?: { first: number; count: number };
  ids?: Int32Array;
  after?: Columns;
  setup?: SetupEdit[];
  cursor?: string;
  postOn?: boolean;
}

/** A command that could not be written: the reason in words, and nothing was changed. */
export class NotWritten extends Error {
  constructor(reason: string) {
    super(reason);
    this.name = 'NotWritten';
  }
}

/** When the rest is read at the latest, in milliseconds: the first rows come before it, also from a slow disk. */
const latestRest = 1_000;

/** The mailbox of one person in one browser. One at a time may be open on a store. */
export class Mailbox {
  readonly columns = new StateColumns();
  readonly raws: RawStore;
  readonly envelopes: EnvelopeStore;
  /** The ids of damaged messages; complete once `ready()` is settled. */
  readonly damaged = new Set<number>();
  readonly troubles: string[] = [];
  readonly heads: JournalHead[] = [];
  readonly commands = new Set<string>();
  tables = new Tables();
  views = new Views(this.columns, this.tables, this.damaged);
  setup: Setup = emptySetup;
  cursor: string | null = null;
  postOn = false;
  revision = 0;
  seq = 0;

  private readonly dirty = new Set<number>();
  private queue: Promise<unknown> = Promise.resolve();
  private flushing: Promise<void> | null = null;
  private closed = false;
  /** Begins to read what the first rows don't need. */
  beginRest: () => void = () => undefined;
  private readonly restBegun = new Promise<void>((resolve) => (this.beginRest = resolve));
  private journalLoaded: Promise<void> = Promise.resolve();
  private envelopesLoaded: Promise<void> = Promise.resolve();

  private constructor(
    readonly store: RecordStore,
    readonly now: () => number,
    private readonly changed: () => void,
  ) {
    this.raws = new RawStore(store);
    this.envelopes = new EnvelopeStore(store, this.raws, (key, reason, record) => this.setAside(key, reason, record));
  }

  /**
   * Opens what is stored. `now` is the clock in milliseconds since 1970; `changed` is called at every new revision.
   * Throws NewerStorage where a newer version wrote it.
   */
  static async open(store: RecordStore, now: () => number, changed: () => void): Promise<Mailbox> {
    const mailbox = new Mailbox(store, now, changed);
    await mailbox.load();
    return mailbox;
  }

  private async load(): Promise<void> {
    const stored = await this.store.get(keyOf.meta);
    let from = 0;
    if (stored !== null) {
      try {
        const meta = readRecord(keyOf.meta, stored, metaSchema);
        this.tables = new Tables(meta);
        this.setup = meta.setup;
        this.cursor = meta.cursor;
        this.postOn = meta.postOn;
        from = meta.seq;
        const packs = Math.ceil(meta.count / statePackSize);
        const records = await Promise.all(Array.from({ length: packs }, (_, i) => this.store.get(keyOf.state(i))));
        for (const [pack, record] of records.entries()) {
          try {
            this.columns.load(pack, readRecord(keyOf.state(pack), record, statePackSchema));
          } catch (error) {
            if (error instanceof NewerStorage) throw error;
            this.setAside(keyOf.state(pack), String(error), record);
            // The journal knows everything that was ever done: it is replayed from its beginning.
            from = 0;
          }
        }
        this.columns.count = meta.count;
      } catch (error) {
        if (error instanceof NewerStorage) throw error;
        this.setAside(keyOf.meta, String(error), stored);
        from = 0;
      }
    }
    this.seq = from;
    await this.replay(from);
    this.views = new Views(this.columns, this.tables, this.damaged);
    this.views.rebuild();
    this.revision = this.seq;
    this.journalLoaded = this.restBegun.then(() => this.loadHeads(from));
    this.envelopesLoaded = this.journalLoaded.then(() => this.loadEnvelopes());
    setTimeout(this.beginRest, latestRest);
  }

  /** Settled once the Logbook's entries are in memory. Whoever waits for it makes it begin. */
  journalReady(): Promise<void> {
    this.beginRest();
    return this.journalLoaded;
  }

  /** Settled once all envelopes are in memory, too. Whoever waits for it makes it begin. */
  ready(): Promise<void> {
    this.beginRest();
    return this.envelopesLoaded;
  }

  /** Applies the journal's records after `from`. */
  private async replay(from: number): Promise<void> {
    for (let seq = from + 1; ; seq++) {
      const record = await this.store.get(keyOf.journal(seq));
      if (record === null) {
        // A hole is not the end where a later record exists: a record may have been lost by damage.
        if (!(await this.store.get(keyOf.journal(seq + 1)))) return;
        this.troubles.push(`Entry ${seq} of the Logbook is missing: what it did may be lost.`);
      } else {
        try {
          this.apply(readRecord(keyOf.journal(seq), record, journalSchema));
        } catch (error) {
          if (error instanceof NewerStorage) throw error;
          this.setAside(keyOf.journal(seq), String(error), record);
        }
      }
      this.seq = seq;
    }
  }

  /** Reads the Logbook's entries, which the first rows don't need. */
  private async loadHeads(replayedFrom: number): Promise<void> {
    const heads: JournalHead[] = [];
    for (let at = 1; at <= replayedFrom; at += 64) {
      const seqs = Array.from({ length: Math.min(64, replayedFrom - at + 1) }, (_, i) => at + i);
      const records = await Promise.all(seqs.map((seq) => this.store.get(keyOf.journal(seq))));
      for (const [i, record] of records.entries()) {
        const parsed = journalSchema.safeParse(record);
        if (parsed.success) heads.push(this.head(parsed.data));
        else if (record !== null) this.setAside(keyOf.journal(seqs[i]), parsed.error.issues[0].message, record);
      }
    }
    this.heads.unshift(...heads);
    for (const head of heads) this.commands.add(head.command);
    this.bump();
  }

  private async loadEnvelopes(): Promise<void> {
    const { count } = this.columns;
    await this.envelopes.ensureAll(count);
    // Decoding all at once would hold up whoever asks for rows meanwhile.
    for (let id = 0; id < count; id++) {
      if (this.envelopes.get(id).damage !== null) this.damaged.add(id);
      if (id % 512 === 511) await new Promise((resolve) => setTimeout(resolve));
    }
    this.views.changed();
    this.bump();
  }

  private bump(): void {
    this.revision++;
    this.changed();
  }

  /** Keeps a record that can't be read where nothing will overwrite it, and tells. */
  setAside(key: string, reason: string, record: unknown): void {
    this.troubles.push(
      `A stored record (${key}) could not be read (${reason.replace(/^SpoiltRecord: /, '')}). It was set aside, and the rest was loaded.`,
    );
    void this.store.set(keyOf.aside(key, this.now()), record).catch(() => undefined);
  }

  private head(record: JournalRecord): JournalHead {
    const ids = record.change?.ids ?? null;
    return {
      seq: record.seq,
      command: record.command,
      at: record.at,
      by: record.by,
      says: record.says,
      undoes: record.undoes,
      final: record.final,
      count: ids?.length ?? 0,
      ids,
      moved: record.change?.after.place !== undefined,
      added: record.add !== null,
    };
  }

  private apply(record: JournalRecord): void {
    this.tables.replay(record.intern);
    if (record.add) this.columns.grow(record.add.first + record.add.count);
    if (record.change) {
      this.columns.apply(record.change.ids, record.change.after);
      for (const id of record.change.ids) this.dirty.add(Math.floor(id / statePackSize));
    }
    if (record.setup) this.setup = record.setup.reduce((setup, edit) => editSetup(setup, edit.after), this.setup);
    if (record.cursor !== null) this.cursor = record.cursor;
    if (record.postOn !== null) this.postOn = record.postOn;
    this.heads.push(this.head(record));
    this.commands.add(record.command);
  }

  /** Runs one command after another: none sees another half done. */
  exclusive<T>(work: () => Promise<T>): Promise<T> {
    const run = this.queue.then(work, work);
    this.queue = run.catch(() => undefined);
    return run;
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
    const { ids, after } = commit;
    if (commit.add) this.columns.grow(commit.add.first + commit.add.count);
    const before: Columns = {};
    if (ids && after)
      for (const name of Object.keys(after) as (keyof Columns)[]) before[name] = this.columns.pick(name, ids);
    const record: JournalRecord = {
      v: recordVersion,
      seq,
      command: commit.command,
      at: this.now(),
      by: commit.by,
      says: commit.says,
      undoes: commit.undoes ?? null,
      final: commit.final ?? false,
      add: commit.add ?? null,
      change: ids && after ? { ids: Int32Array.from(ids), before, after } : null,
      setup: commit.setup?.map((edit) => ({ before: this.inverse(edit), after: edit })) ?? null,
      intern,
      cursor: commit.cursor ?? null,
      postOn: commit.postOn ?? null,
    };
    try {
      await this.store.set(keyOf.journal(seq), record);
    } catch (error) {
      this.tables.giveBack(intern);
      if (commit.add) this.columns.count = commit.add.first;
      throw new NotWritten(storageTrouble(error));
    }
    this.seq = seq;
    this.apply(record);
    if (commit.add) this.views.insert(record.change?.ids ?? new Int32Array(0));
    this.views.changed();
    this.bump();
    this.scheduleFlush();
    return seq;
  }

  private inverse(edit: SetupEdit): SetupEdit {
    const list: readonly { id: string }[] = this.setup[edit.list];
    const at = list.findIndex((item) => item.id === edit.id);
    return { list: edit.list, id: edit.id, item: at < 0 ? null : list[at], ...(at < 0 ? {} : { at }) } as SetupEdit;
  }

  /** Writes nothing any more: its store was cleared, or belongs to another now. */
  close(): void {
    this.closed = true;
  }

  private scheduleFlush(): void {
    if (this.closed) return;
    this.flushing ??= new Promise<void>((resolve) => setTimeout(resolve, 400))
      .then(() => this.flush())
      .catch((error: unknown) => {
        // The journal holds everything; the packs are written with the next command.
        this.troubles.push(storageTrouble(error));
      })
      .finally(() => {
        this.flushing = null;
        if (this.dirty.size) this.scheduleFlush();
      });
  }

  /** Writes the state packs that changed, then `meta`. */
  async flush(): Promise<void> {
    if (this.closed) return;
    const { seq } = this;
    const packs = [...this.dirty];
    this.dirty.clear();
    const records = packs.map((pack) => [keyOf.state(pack), this.columns.pack(pack)] as const);
    const meta = {
      v: recordVersion,
      seq,
      count: this.columns.count,
      places: [...this.tables.places.items],
      labelSets: [...this.tables.labelSets.items],
      traces: [...this.tables.traces.items],
      setup: this.setup,
      cursor: this.cursor,
      postOn: this.postOn,
    };
    try {
      await Promise.all(records.map(([key, record]) => this.store.set(key, record)));
      await this.store.set(keyOf.meta, meta);
    } catch (error) {
      for (const pack of packs) this.dirty.add(pack);
      throw error;
    }
  }

  /** Reads a record of the journal again, with its change. */
  async journalRecord(seq: number): Promise<JournalRecord> {
    return readRecord(keyOf.journal(seq), await this.store.get(keyOf.journal(seq)), journalSchema);
  }
}
