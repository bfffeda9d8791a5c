import { Tabs, type Channel, type TakeLock } from './tabs';

interface Counting {
  add(what: string): Promise<number>;
  fail(): Promise<never>;
  give(): Promise<unknown>;
}

/** A broadcast channel and a lock that several tabs of one test share. */
function world() {
  const channels = new Set<Channel>();
  const queue: { tab: string; hold: () => Promise<never> }[] = [];
  const opened: string[] = [];
  const done: string[] = [];
  const take = () => void queue[0]?.hold();
  return {
    opened,
    done,
    open(name: string, heard: unknown[] = []) {
      const channel: Channel = {
        onmessage: null,
        postMessage: (data) => {
          // Copied at once, as a BroadcastChannel does: what can't be is refused here.
          const copy: unknown = structuredClone(data);
          for (const other of channels)
            if (other !== channel)
              setTimeout(() => channels.has(other) && other.onmessage?.({ data: copy } as MessageEvent));
        },
      };
      channels.add(channel);
      const takeLock: TakeLock = (hold) => {
        queue.push({ tab: name, hold });
        if (queue.length === 1) setTimeout(take);
      };
      const tabs = new Tabs<Counting, { added: string }>({
        tab: name,
        channel,
        takeLock,
        heard: (event) => heard.push(event),
        patience: 40,
        open: async (tell) => {
          opened.push(name);
          return {
            add: async (what: string) => {
              done.push(`${name} ${what}`);
              tell({ added: what });
              return done.length;
            },
            fail: async () => Promise.reject(new Error('it broke')),
            give: async () => () => 'a function',
          };
        },
      });
      const close = () => {
        channels.delete(channel);
        const first = queue[0]?.tab === name;
        queue.splice(
          queue.findIndex((q) => q.tab === name),
          1,
        );
        if (first) setTimeout(take);
      };
      /** It hears nothing any more, and holds the lock. */
      const silence = () => void channels.delete(channel);
      return { tabs, heard, close, silence };
    },
  };
}

test('one tab opens the mailbox, the others reach it there, and all hear what it tells', async () => {
  const { open, opened, done } = world();
  const a = open('a');
  const b = open('b');
  expect(await b.tabs.call('add', ['x'])).toBe(1);
  expect(await a.tabs.call('add', ['y'])).toBe(2);
  expect(opened).toEqual(['a']);
  expect(done).toEqual(['a x', 'a y']);
  await new Promise((resolve) => setTimeout(resolve));
  expect(b.heard).toContainEqual({ added: 'y' });
  await expect(b.tabs.call('fail', [])).rejects.toThrow('it broke');
  await expect(b.tabs.call('nothing' as never, [] as never)).rejects.toThrow('The mailroom has no nothing.');
});

test('when the writer closes another takes over, and does what was asked and not answered', async () => {
  const { open, opened, done } = world();
  const a = open('a');
  const b = open('b');
  const c = open('c');
  await c.tabs.call('add', ['first']);
  a.close();
  const answers = await Promise.all([b.tabs.call('add', ['from b']), c.tabs.call('add', ['from c'])]);
  expect(answers.toSorted()).toEqual([2, 3]);
  expect(opened).toEqual(['a', 'b']);
  expect(done.slice(1).toSorted()).toEqual(['b from b', 'b from c']);
});

test('what can’t be sent from one tab to another is an error, on the way there and back', async () => {
  const { open } = world();
  open('a');
  const b = open('b');
  await b.tabs.call('add', ['x']);
  await expect(b.tabs.call('give', [])).rejects.toThrow(/answer can’t be sent/);
  await expect(b.tabs.call('add', [(() => 'a function') as never])).rejects.toThrow(/could not be cloned/);
  expect(await b.tabs.call('add', ['y'])).toBeGreaterThan(1);
});

test('a writer that takes no call is given up; one that has it may take its time', async () => {
  const { open } = world();
  const a = open('a');
  const b = open('b');
  await b.tabs.call('add', ['x']);
  const slow = new Promise<number>((resolve) => setTimeout(resolve, 120, 7));
  (a.tabs as unknown as { own: Counting }).own.add = () => slow;
  expect(await b.tabs.call('add', ['slow'])).toBe(7);
  a.silence();
  await expect(b.tabs.call('add', ['z'])).rejects.toThrow(/does not answer/);
});
