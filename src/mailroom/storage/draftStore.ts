// Drafts as they are kept: a record for each, and one for each of its files. They are no messages yet, and no commands:
// what is typed is written over what was typed before.
import { z } from 'zod';
import { InTurn } from '../../core/data/inTurn';
import { draftSchema, type Draft } from '../../core/writing/draft';
import { keyOf } from './keys';
import type { Records } from './records';

const day = 86_400_000;
const recordSchema = z.object({ draft: draftSchema });
const bytesSchema = z.object({ bytes: z.instanceof(Uint8Array) });

export class DraftStore {
  private readonly kept = new Map<string, Draft>();
  private loading: Promise<void> | null = null;
  private readonly turns = new InTurn();
  /** Called whenever a draft is there, changed or gone. */
  changed: () => void = () => undefined;

  /** `now`: the clock, in milliseconds since 1970. */
  constructor(
    private readonly records: Records,
    private readonly now: () => number,
  ) {}

  /** Settled once all drafts are in memory. Tried again where storage could not be read. */
  ready(): Promise<void> {
    this.loading ??= this.load().catch((error: unknown) => {
      this.loading = null;
      throw error;
    });
    return this.loading;
  }

  /** What was thrown away more than a day ago, or never written in, goes for good. */
  private async load(): Promise<void> {
    for (const key of await this.records.keys(keyOf.drafts)) {
      const read = await this.records.read(key, recordSchema);
      if (read === null || read === 'spoilt') continue;
      const { draft } = read;
      this.kept.set(draft.id, draft);
      const old = draft.thrown !== null && this.now() - draft.thrown > day;
      if (old || draft.at === 0) await this.remove(draft.id);
    }
    this.changed();
  }

  /** One change after another, once all are in memory: none writes over what another wrote since it looked. */
  inTurn<T>(change: () => Promise<T>): Promise<T> {
    return this.turns.do(async () => {
      await this.ready();
      return change();
    });
  }

  get(id: string): Draft | null {
    return this.kept.get(id) ?? null;
  }

  /** All that something was written in, what was typed last first; not those that were thrown away, or wait for a command. */
  list(): Draft[] {
    return [...this.kept.values()]
      .filter(({ thrown, at, command }) => thrown === null && at > 0 && command === null)
      .sort((a, b) => b.at - a.at);
  }

  /** Those that wait for a command to be done. */
  waiting(): Draft[] {
    return [...this.kept.values()].filter(({ command }) => command !== null);
  }

  /** Stores a draft in place of what it was. */
  async keep(draft: Draft): Promise<void> {
    const before = this.kept.get(draft.id);
    await this.records.write(keyOf.draft(draft.id), { draft });
    this.kept.set(draft.id, draft);
    const left = new Set(draft.files.map(({ id }) => id));
    for (const { id } of before?.files ?? [])
      if (!left.has(id)) await this.records.remove(keyOf.draftFile(draft.id, id));
    this.changed();
  }

  /** Deletes a draft and its files. */
  async remove(id: string): Promise<void> {
    const draft = this.kept.get(id);
    await this.records.remove(keyOf.draft(id));
    this.kept.delete(id);
    for (const file of draft?.files ?? []) await this.records.remove(keyOf.draftFile(id, file.id));
    this.changed();
  }

  async keepFile(id: string, file: string, bytes: Uint8Array): Promise<void> {
    await this.records.write(keyOf.draftFile(id, file), { bytes });
  }

  /** The bytes of a file; null where they are not there or can’t be read. */
  async file(id: string, file: string): Promise<Uint8Array | null> {
    const read = await this.records.read(keyOf.draftFile(id, file), bytesSchema);
    return read === null || read === 'spoilt' ? null : read.bytes;
  }
}
