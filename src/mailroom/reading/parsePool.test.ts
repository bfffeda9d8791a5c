// The pool with workers that are scripts: some stay at a message for ever, some die at it.
import type { ParseJob } from './parse.worker';
import { ParsePool } from './parsePool';
import { readHere } from './readings';
import { readBatch } from './readMessages';
import { sentMessages } from './work';

const message = (subject: string) => new TextEncoder().encode(`From: a@b.test\nSubject: ${subject}\n\nText\n`);

/** A worker that stays at “stuck” and dies at “deadly”. */
class Scripted {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  private ended = false;
  private turn: Promise<void> = Promise.resolve();

  constructor(private readonly starts: boolean) {}

  postMessage(order: ParseJob): void {
    // One job after another, as a worker has them.
    this.turn = this.turn.then(() => this.work(order));
  }

  private async work({ job, work, passed, each }: ParseJob): Promise<void> {
    if (!this.starts) return this.onerror?.();
    const list = sentMessages(work);
    for (const [at, bytes] of list.entries()) {
      if (this.ended) return;
      // Otherwise it says so now and then.
      if (each || at === 0) this.onmessage?.({ data: { job, at } });
      const says = new TextDecoder().decode(bytes);
      if (!passed.has(at) && says.includes('stuck')) return new Promise(() => undefined);
      if (!passed.has(at) && says.includes('deadly')) return this.onerror?.();
    }
    const came =
      work.kind === 'all'
        ? await readBatch(list, work.form, work.judged, { passed })
        : await readHere(
            list.map((bytes, n) => ({ bytes, form: work.forms[n] })),
            work.kind,
            work.given,
            { passed },
          );
    if (!this.ended) this.onmessage?.({ data: { job, came } });
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

test('a worker is not replaced for the time in which this thread was held up itself: what it said is heard first', async () => {
  let made = 0;
  const answers = () => {
    made++;
    const worker = {
      onmessage: null as ((event: unknown) => void) | null,
      // Heard after timers whose time has come.
      postMessage: ({ job }: ParseJob) => void setImmediate(() => worker.onmessage?.({ data: { job, came: {} } })),
      terminate: () => undefined,
    };
    return worker as never;
  };
  const pool = new ParsePool(1, answers, { patience: 30, idle: 30 });
  // From here on what is to be heard at once comes after the timers.
  await new Promise((resolve) => setImmediate(resolve));
  const read = pool.parse([message('one')], 'eml', false);
  for (const until = performance.now() + 100; performance.now() < until;);
  expect((await read).messages).toHaveLength(1);
  expect(made).toBe(1);
});

test('workers that can’t be started are said to be so, and nothing waits for ever', async () => {
  await expect(poolOf(2, false).parse([message('one')], 'eml', false)).rejects.toThrow(/can’t be started/);
});

test('one that nobody could take apart says why', async () => {
  const read = await readBatch([message('one'), message('two')], 'eml', true, { passed: new Set([0]) });
  expect(read.envelopes[0].damage).toMatch(/takes too long/);
  expect(read.envelopes[1]).toMatchObject({ subject: 'two', damage: null });
});

test('of stored messages one that nobody can take apart is passed over, and the pack it stands in stays here', async () => {
  const list = ['one', 'stuck', 'two', 'deadly', 'three'].map(message);
  // All in one pack, as they lie in storage.
  const pack = Uint8Array.from(list.flatMap((bytes) => [...bytes]));
  let from = 0;
  const stored = list.map(({ length }) => {
    from += length;
    return { bytes: pack.subarray(from - length, from), form: 'eml' as const };
  });
  const pool = poolOf(1);
  const [texts, says] = await Promise.all([
    pool.read(stored, 'text', undefined),
    pool.read(stored.slice(0, 1), 'says', { name: 'Subject', text: 'ONE' }),
  ]);
  expect(texts.map((text) => text?.trim() ?? null)).toEqual(['Text', null, 'Text', null, 'Text']);
  expect(says).toEqual([true]);
  // Nothing of it went over to a worker that may have died.
  expect(pack.length).toBe(from);
});
