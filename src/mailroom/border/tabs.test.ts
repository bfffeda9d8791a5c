import { Tabs, type Channel, type TakeLock } from './tabs';

interface Counting {
  add(what: string): Promise<number>;
  fail(): Promise<never>;
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
          for (const other of channels)
            if (other !== channel)
              setTimeout(
                () => channels.has(other) && other.onmessage?.({ data: structuredClone(data) } as MessageEvent),
              );
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
        open: async (tell) => {
          opened.push(name);
          return {
            add: async (what: string) => {
              done.push(`${name} ${what}`);
              tell({ added: what });
              return done.length;
            },
            fail: async () => Promise.reject(new Error('it broke')),
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
      return { tabs, heard, close };
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
