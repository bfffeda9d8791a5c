// Reads in stored messages: their bytes from storage, what is asked of them from the workers that take messages apart.
import type { KeptEnvelope } from '../storage/keptEnvelope';
import type { RawStore } from '../storage/rawStore';
import type { StoredMessage } from '../../core/mail/message';
import type { Parse, Parsing } from './parsePool';
import type { Given, Kind, Read, ReadStored } from './readings';

/** Who takes messages apart; `readSoon`: one that a person waits for, behind nothing else. */
export type TakingApart = Parsing & { readSoon?: ReadStored };

export class Reader {
  /** Reads all that is kept of new messages. */
  readonly parse: Parse;
  private readonly soon: ReadStored;
  private readonly bulk: ReadStored;
  /** What was opened last: it is asked for again whenever the mailbox changes, and its bytes never do. */
  private opened: { id: number; plain: boolean; read: Read<'opened'> } | null = null;

  constructor(
    private readonly raws: RawStore,
    { parse, read, readSoon = read }: TakingApart,
  ) {
    this.parse = parse;
    this.soon = readSoon;
    this.bulk = read;
  }

  /** A message opened for reading; null as for `one`. */
  async open(id: number, plain: boolean): Promise<Read<'opened'> | null> {
    const { opened } = this;
    if (opened?.id === id && opened.plain === plain) return opened.read;
    const read = await this.one(id, 'opened', plain);
    if (read) this.opened = { id, plain, read };
    return read;
  }

  /** Forgets what was opened last: it may have been deleted for good. */
  forget(): void {
    this.opened = null;
  }

  /** Something of one message; null where its bytes are gone or damaged, or nobody can take it apart. */
  async one<K extends Kind>(id: number, kind: K, given: Given<K>): Promise<Read<K> | null> {
    const stored = await this.raws.readable(id);
    return stored && (await this.soon([stored], kind, given))[0];
  }

  /** The same of several, in their order. */
  async many<K extends Kind>(ids: readonly number[], kind: K, given: Given<K>): Promise<(Read<K> | null)[]> {
    const stored: StoredMessage[] = [];
    const which: number[] = [];
    for (const [at, one] of (await this.raws.readableAll(ids)).entries()) {
      if (!one) continue;
      which.push(at);
      stored.push(one);
    }
    const out: (Read<K> | null)[] = ids.map(() => null);
    for (const [n, read] of (await this.of(stored, kind, given)).entries()) out[which[n]] = read;
    return out;
  }

  /** The envelope of a stored message of which that is lost. */
  async envelopeOf({ bytes, form }: StoredMessage): Promise<KeptEnvelope> {
    return (await this.parse([bytes], form, false)).envelopes[0];
  }

  /** The same of messages that are on their way in. */
  async of<K extends Kind>(stored: readonly StoredMessage[], kind: K, given: Given<K>): Promise<(Read<K> | null)[]> {
    return stored.length > 0 ? this.bulk(stored, kind, given) : [];
  }
}

/** What reads in stored messages, as the rooms above ask for it. */
export interface Readable {
  readonly reader: Reader;
}
