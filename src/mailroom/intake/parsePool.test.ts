// The pool with workers that are scripts: some stay at a message for ever, some die at it.
import type { ParseJob } from './parse.worker';
import { ParsePool } from './parsePool';
import { readBatch } from './readMessages';

const message = (subject: string) => new TextEncoder().encode(`From: a@b.test\nSubject: ${subject}\n\nText\n`);

/** A worker that stays at “stuck” and dies at “deadly”. */
class Scripted {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  private ended = false;
  private turn: Promise<void> = Promise.resolve();

  constructor(private readonly starts: boolean) {}

  postMessage({ job, form, messages, judged, given }: ParseJob): void {
    // One job after another, as a worker has them.
    this.turn = this.turn.then(() => this.work({ job, form, messages, judged, given }));
  }

  private async work({ job, form, messages, judged, given }: ParseJob): Promise<void> {
    if (!this.starts) return this.onerror?.();
    for (const [at, bytes] of messages.entries()) {
      if (this.ended) return;
      this.onmessage?.({ data: { job, at } });
      const says = new TextDecoder().decode(bytes);
      if (!given.has(at) && says.includes('stuck')) return new Promise(() => undefined);
      if (!given.has(at) && says.includes('deadly')) return this.onerror?.();
    }
    const read = await readBatch(messages, form, judged, { given });
    if (!this.ended) this.onmessage?.({ data: { job, ...read } });
  }

  terminate(): void {
    this.ended = true;
  }
}

const poolOf = (size: number, starts = true) =>
  new ParsePool(size, () => new Scripted(starts) as never, { patience: 30, idle: 30 });

test('a worker that stays at a message, or dies at it, is replaced; the others are read, that one is kept', async () => {
  const pool = poolOf(1);
  const batches = await Promise.all([
    pool.parse(['one', 'stuck', 'two', 'deadly', 'three'].map(message), 'eml', true),
    pool.parse(['four', 'five'].map(message), 'eml', false),
  ]);
  expect(batches.map(({ envelopes }) => envelopes.map(({ subject }) => subject))).toEqual([
    ['one', '', 'two', '', 'three'],
    ['four', 'five'],
  ]);
  expect(batches[0].envelopes.map(({ damage }) => damage !== null)).toEqual([false, true, false, true, false]);
  expect(batches[0].envelopes[1]).toMatchObject({ size: message('stuck').length, damage: expect.any(String) });
  // Each has its key, by which it is told from others, and its bytes as they came.
  expect(new Set(batches[0].envelopes.map(({ key }) => key)).size).toBe(5);
  expect(batches[0].messages[1]).toEqual(message('stuck'));
  expect(batches[0].features).toHaveLength(5);
});

test('workers that can’t be started are said to be so, and nothing waits for ever', async () => {
  await expect(poolOf(2, false).parse([message('one')], 'eml', false)).rejects.toThrow(/can’t be started/);
});

test('one that nobody could take apart says why', async () => {
  const read = await readBatch([message('one'), message('two')], 'eml', true, { given: new Set([0]) });
  expect(read.envelopes[0].damage).toMatch(/takes too long/);
  expect(read.envelopes[1]).toMatchObject({ subject: 'two', damage: null });
});
