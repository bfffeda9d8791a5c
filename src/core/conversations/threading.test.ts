import fc from 'fast-check';
import { tree } from './order';
import { Conversations, type SubjectStep, type Threadable } from './threading';

const day = 86_400_000;

function mail(id: string, references: string[] = [], more: Partial<Threadable> = {}): Threadable {
  return { messageId: id, references, subject: '', date: 0, from: 'a@x.test', recipients: [], listId: '', ...more };
}

function thread(list: Threadable[], step: SubjectStep = 'none'): Conversations {
  const all = new Conversations(step);
  for (const one of list) all.add(one);
  return all;
}

const parents = (all: Conversations) => Array.from({ length: all.count }, (_, i) => all.parent(i));
const groups = (all: Conversations) => Array.from({ length: all.count }, (_, i) => all.conversation(i));

describe('RFC 5256, REFERENCES, step 1', () => {
  test('1.A: references are tied to each other in their order, whether their messages are here or not', () => {
    const all = thread([mail('d', ['a', 'b', 'c']), mail('b'), mail('a')]);
    expect(parents(all)).toEqual([1, 2, -1]);
    expect(groups(all)).toEqual([0, 0, 0]);
  });
  test('1.A: what has a parent keeps it when another message’s references say otherwise', () => {
    const all = thread([mail('a'), mail('b', ['a']), mail('x'), mail('c', ['x', 'b'])]);
    expect(parents(all)).toEqual([-1, 0, -1, 1]);
  });
  test('1.B: the message’s own last reference counts, also against what others made of it', () => {
    const all = thread([mail('a'), mail('z', ['a', 'b', 'c']), mail('b'), mail('c', ['b']), mail('q'), mail('b2', [])]);
    expect(parents(all)).toEqual([-1, 3, 0, 2, -1, -1]);
    const other = thread([mail('z', ['a', 'c']), mail('a'), mail('b'), mail('c', ['b'])]);
    expect(parents(other)).toEqual([3, -1, -1, 2]);
    expect(groups(other)).toEqual([0, 1, 0, 0]);
  });
  test('no circles: a message that answers itself, two that answer each other, three in a ring', () => {
    expect(parents(thread([mail('a', ['a'])]))).toEqual([-1]);
    expect(parents(thread([mail('a', ['b']), mail('b', ['a'])]))).toEqual([1, -1]);
    const ring = thread([mail('a', ['c']), mail('b', ['a']), mail('c', ['b'])]);
    expect(groups(ring)).toEqual([0, 0, 0]);
    expect(parents(ring).filter((p) => p === -1)).toHaveLength(1);
  });
  test('the tree of the RFC’s THREAD example, (3 6 (4 23)(44 7 96)), after one that stands alone, (2)', () => {
    const all = thread([
      mail('2'),
      mail('3'),
      mail('6', ['3']),
      mail('4', ['3', '6']),
      mail('23', ['3', '6', '4']),
      mail('44', ['3', '6']),
      mail('7', ['44']),
      mail('96', ['3', '6', '44', '7']),
    ]);
    const names = ['2', '3', '6', '4', '23', '44', '7', '96'];
    const members = names.map((_, id) => ({ id, parent: all.parent(id), date: id }));
    expect(tree(members, false).map(({ member, depth }) => `${depth}:${names[member.id]}`)).toEqual([
      '0:2',
      '0:3',
      '1:6',
      '2:4',
      '3:23',
      '2:44',
      '3:7',
      '4:96',
    ]);
  });
  test('one Message-ID twice, as a list’s copy of what stands in Sent: both are in the conversation', () => {
    const all = thread([mail('a'), mail('b', ['a']), mail('b', ['a']), mail('a'), mail('c', ['b'])]);
    expect(groups(all)).toEqual([0, 0, 0, 0, 0]);
    expect(parents(all)).toEqual([-1, 0, 0, 0, 1]);
  });
});

describe('the subject step', () => {
  const invoice = (n: number, more: Partial<Threadable> = {}) =>
    mail(`i${n}`, [], { subject: 'Invoice', from: `seller${n}@x.test`, recipients: ['me@y.test'], date: n, ...more });

  test('plain, as the RFC has it: thirty messages called “Invoice” are one conversation', () => {
    const all = thread(
      Array.from({ length: 30 }, (_, n) => invoice(n)),
      'plain',
    );
    expect(new Set(groups(all)).size).toBe(1);
  });
  test('guarded: they are thirty', () => {
    const all = thread(
      Array.from({ length: 30 }, (_, n) => invoice(n)),
      'guarded',
    );
    expect(new Set(groups(all)).size).toBe(30);
  });
  test('guarded: “Re: Invoice” from thirty people to me are thirty, too', () => {
    const list = Array.from({ length: 30 }, (_, n) => invoice(n, { subject: 'Re: Invoice' }));
    expect(new Set(groups(thread(list, 'guarded'))).size).toBe(30);
  });

  const original = mail('o', [], { subject: 'Berth 2', from: 'me@y.test', recipients: ['ann@x.test'], date: day });
  const answer = (more: Partial<Threadable> = {}) =>
    mail('r', [], { subject: 'RE: Berth 2', from: 'ann@x.test', recipients: ['me@y.test'], date: 2 * day, ...more });

  test.each([
    ['an answer that lost its references', answer(), true],
    ['from somebody else', answer({ from: 'bob@x.test' }), false],
    ['of another subject', answer({ subject: 'Re: Berth 3' }), false],
    ['two months later', answer({ date: 62 * day }), false],
    ['long before what it would answer', answer({ date: -2 * day }), false],
    ['no reply by its subject', answer({ subject: 'Berth 2' }), false],
    ['to somebody else as well', answer({ recipients: ['bob@x.test', 'me@y.test'] }), true],
    ['with references of which nothing is here', answer({ references: ['lost'] }), true],
  ])('guarded: %s', (_what, reply, joined) => {
    for (const list of [
      [original, reply],
      [reply, original],
    ]) {
      const all = thread(list, 'guarded');
      expect(all.conversation(0) === all.conversation(1)).toBe(joined);
      if (joined) expect(all.parent(list.indexOf(reply))).toBe(list.indexOf(original));
    }
  });

  test('guarded: on a mailing list, by its List-Id, or by the list’s address where it has none', () => {
    const post = { subject: 'Tide tables', from: 'ann@x.test', recipients: ['list@z.test'] };
    const withId = { listId: 'tides.z.test' };
    const reply = { subject: 'Re: Tide tables', from: 'bob@x.test', recipients: ['list@z.test'] };
    expect(
      groups(thread([mail('a', [], { ...post, ...withId }), mail('b', [], { ...reply, ...withId })], 'guarded')),
    ).toEqual([0, 0]);
    expect(
      groups(
        thread(
          [mail('a', [], post), mail('b', [], { ...reply, recipients: ['ann@x.test', 'list@z.test'] })],
          'guarded',
        ),
      ),
    ).toEqual([0, 0]);
    expect(groups(thread([mail('a', [], post), mail('b', [], reply)], 'guarded'))).toEqual([0, 1]);
  });
  test('5.C: two answers to what is not here hang beside each other', () => {
    const all = thread([answer(), answer({ messageId: 'r2', date: 3 * day })], 'guarded');
    expect(groups(all)).toEqual([0, 0]);
    expect(parents(all)).toEqual([-1, -1]);
  });
  test('an empty base subject joins nothing', () => {
    const list = ['a', 'b'].map((id) => mail(id, [], { subject: 'Re: ', recipients: ['a@x.test'] }));
    expect(groups(thread(list, 'guarded'))).toEqual([0, 1]);
  });
});

// A forest of answers in which every message names its whole line of ancestors.
const forest = fc
  .array(fc.nat({ max: 1_000 }), { minLength: 1, maxLength: 40 })
  .map((picks) => picks.map((pick, i) => (i === 0 || pick % 5 === 0 ? -1 : pick % i)));

function mailOf(tree: number[]): Threadable[] {
  const lines: string[][] = [];
  return tree.map((parent, i) => {
    lines.push(parent < 0 ? [] : [...lines[parent], `m${parent}`]);
    return mail(`m${i}`, lines[i]);
  });
}

test('in whatever order a forest arrives, its parents and conversations are the same', () => {
  fc.assert(
    fc.property(forest, fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), (tree, chance) => {
      const list = mailOf(tree);
      const order = list.map((_, i) => ({ i, by: chance.next().value })).sort((a, b) => a.by - b.by);
      const all = thread(order.map(({ i }) => list[i]));
      const at = new Map(order.map(({ i }, number) => [i, number]));
      const top = (i: number): number => (tree[i] < 0 ? i : top(tree[i]));
      for (const [i, parent] of tree.entries()) {
        expect(all.parent(at.get(i) ?? -1)).toBe(parent < 0 ? -1 : at.get(parent));
        for (const [j] of tree.entries())
          expect(all.conversation(at.get(i) ?? -1) === all.conversation(at.get(j) ?? -1)).toBe(top(i) === top(j));
      }
    }),
  );
});

test('what is said to have changed is all that changed, whatever the references; members and numbers agree', () => {
  const any = fc.array(
    fc.record({
      id: fc.nat({ max: 12 }),
      refs: fc.array(fc.nat({ max: 12 }), { maxLength: 4 }),
      subject: fc.constantFrom('', 'A', 'Re: A', 'Re: B', 'B'),
      from: fc.constantFrom('a', 'b', 'c'),
      to: fc.constantFrom('a', 'b', 'c'),
    }),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(any, (list) => {
      const all = new Conversations();
      const known: [conversation: number, parent: number][] = [];
      for (const [date, { id, refs, subject, from, to }] of list.entries()) {
        const changed = all.add(mail(`${id}`, refs.map(String), { subject, from, recipients: [to], date }));
        for (const number of changed) known[number] = [all.conversation(number), all.parent(number)];
        for (let number = 0; number < all.count; number++) {
          expect(known[number]).toEqual([all.conversation(number), all.parent(number)]);
          const members = all.members(number);
          expect(members).toContain(number);
          expect(all.conversation(number)).toBe(members[0]);
        }
      }
    }),
    { numRuns: 300 },
  );
});

test('10,000 references, 5,000 answers in a row and 5,000 side by side', () => {
  const many = Array.from({ length: 10_000 }, (_, i) => `r${i}`);
  expect(groups(thread([mail('a', many), mail('r0'), mail('r9999', ['r9998'])]))).toEqual([0, 0, 0]);
  const row = thread(Array.from({ length: 5_000 }, (_, i) => mail(`m${i}`, i ? [`m${i - 1}`] : [])));
  expect(row.conversation(4_999)).toBe(0);
  expect(
    tree(
      row.members(0).map((id) => ({ id, parent: row.parent(id), date: id })),
      false,
    ).at(-1)?.depth,
  ).toBe(4_999);
  const backwards = thread(Array.from({ length: 5_000 }, (_, i) => mail(`m${5_000 - i}`, [`m${4_999 - i}`])));
  expect(backwards.members(0)).toHaveLength(5_000);
  expect(thread(Array.from({ length: 5_000 }, (_, i) => mail(`m${i}`, i ? ['m0'] : []))).members(17)).toHaveLength(
    5_000,
  );
});
