import fc from 'fast-check';
import { quote, quoteDepth } from '../mail/quoted';
import { thin, type ThinCandidate } from './thinning';

const m = (id: number, text: string, more: Partial<ThinCandidate> = {}): ThinCandidate => ({
  id,
  date: id,
  from: `p${id}@x.test`,
  flagged: false,
  unread: false,
  texts: [text],
  links: [],
  files: [],
  ...more,
});
const what = (list: ThinCandidate[]) => thin(list).map((v) => (v.goes ? `in ${v.standsIn}` : v.reason));

const question = 'Can berth 2 take the Solveig on Tuesday?\nShe draws four metres.\n';
const answer = `Yes, from ten.\n\nAnn wrote:\n${quote(question)}\n`;

describe('common practice, no source: what stands again whole can go', () => {
  test('quoted whole in the answer, over several answers', () => {
    expect(what([m(1, question), m(2, answer)])).toEqual(['in 2', 'said only here']);
    const third = `Thanks.\n\n${quote(answer)}`;
    expect(what([m(1, question), m(2, answer), m(3, third)])).toEqual(['in 3', 'in 3', 'said only here']);
  });
  test('wrapped anew, and answered piece by piece', () => {
    expect(
      what([
        m(1, question),
        m(2, '> Can berth 2 take the\n> Solveig on Tuesday?\nYes.\n> She draws four metres.\nGood.'),
      ])[0],
    ).toBe('in 2');
  });
  test('altered when quoted: kept', () => {
    expect(what([m(1, question), m(2, answer.replace('four', 'five'))])[0]).toBe('said only here');
    expect(what([m(1, question), m(2, answer.replace('> She draws four metres.', ''))])[0]).toBe('said only here');
  });
  test.each([
    ['flagged', { flagged: true }],
    ['unread', { unread: true }],
    ['attachment', { files: ['plan.pdf 1'] }],
    ['link', { links: ['https://x.test/'] }],
  ])('%s: kept', (reason, more) => {
    expect(what([m(1, question, more), m(2, answer)])[0]).toBe(reason);
  });
  test('an attachment that the later one has, too', () => {
    expect(what([m(1, question, { files: ['plan.pdf 1'] }), m(2, answer, { files: ['plan.pdf 1', 'b'] })])[0]).toBe(
      'in 2',
    );
  });
  test('an earlier message never holds a later one, and nothing to say is kept', () => {
    expect(what([m(1, answer), m(2, question)])).toEqual(['said only here', 'said only here']);
    expect(what([m(1, ' \n'), m(2, '> \n')])).toEqual(['no text', 'no text']);
  });
  test('a short word by somebody else in their own text is no quote of it; sent again by the same person it is', () => {
    expect(what([m(1, 'Thanks'), m(2, 'Thanks to all of you')])[0]).toBe('said only here');
    expect(what([m(1, question), m(2, `${question}\nAnyone?`, { from: 'p1@x.test' })])[0]).toBe('in 2');
  });
  test('sent as plain and as HTML that says more: kept unless both stand there', () => {
    expect(what([m(1, '', { texts: [question, `${question} And rope.`] }), m(2, answer)])[0]).toBe('said only here');
    expect(what([m(1, '', { texts: [question, question] }), m(2, answer)])[0]).toBe('in 2');
  });
  test('part of a word is no word', () => {
    expect(what([m(1, 'Ten'), m(2, '> Tender')])[0]).toBe('said only here');
  });
});

test('nothing unique is ever lost: whatever goes stands, word for word, in the quotes of what stays', () => {
  const word = fc.constantFrom('tide', 'berth', 'ten', 'no', 'yes', 'rope', 'fog');
  const said = fc.array(
    fc.array(word, { minLength: 1, maxLength: 4 }).map((w) => w.join(' ')),
    { maxLength: 3 },
  );
  const step = fc.record({
    said,
    of: fc.nat(),
    how: fc.constantFrom('whole', 'altered', 'none', 'between', 'again'),
    flagged: fc.boolean(),
    unread: fc.boolean(),
    files: fc.subarray(['a', 'b']),
    from: fc.constantFrom('p', 'q'),
  });
  const run = (lines: string[]) => ` ${lines.join(' ').split(/\s+/).filter(Boolean).join(' ')} `;
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 9 }), (steps) => {
      const list: ThinCandidate[] = [];
      for (const [id, { said, of, how, flagged, unread, files, from }] of steps.entries()) {
        const before = list.length ? list[of % list.length].texts[0] : '';
        const quoted = quote(before).split('\n');
        const text = {
          whole: [...said, ...quoted],
          altered: [...said, ...quoted.slice(1)],
          none: said,
          between: quoted.flatMap((line, i) => (i === 1 ? [line, ...said] : [line])),
          again: [before, ...said],
        }[how].join('\n');
        list.push(m(id, text, { flagged: flagged && unread, unread: unread && !flagged, files, from }));
      }
      const verdicts = thin(list);
      const stays = new Set(verdicts.filter((v) => !v.goes).map((v) => v.id));
      for (const { id, goes, standsIn } of verdicts) {
        const message = list[id];
        if (!goes) continue;
        expect(message.flagged || message.unread).toBe(false);
        const witness = list[standsIn ?? -1];
        expect(stays.has(witness.id) && witness.date > message.date).toBe(true);
        for (const file of message.files) expect(witness.files).toContain(file);
        const lines = witness.texts[0].split('\n').map(quoteDepth);
        const places = [0, 1, 2, 3, 4, 5, 6].map((d) => run(lines.filter((l) => l.depth >= d).map((l) => l.text)));
        const whole = run(message.texts[0].split('\n').map((l) => quoteDepth(l).text));
        expect(places.some((place) => place.includes(whole))).toBe(true);
      }
    }),
    { numRuns: 500 },
  );
});
