// Several segments that share one dictionary, against a plain look into every text.
import { parseStructure } from '../mail/structure';
import { TextSegments } from './segments';
import { TextBatchWriter } from './textBatch';
import { segmentSize } from './units';

/** The words come in another order in each segment, so that a full one has to be put in order. */
const bodyOf = (n: number): string =>
  n < segmentSize ? `a${n % 97} b${n % 89} both` : `both b${n % 89} new${n % 31} a${n % 97} höhe${n % 7}`;
const listOf = (n: number): string => `<list-${n % 5}@x.test>`;
const fieldsOf = Array.from(
  { length: 5 },
  (_, n) => parseStructure(new TextEncoder().encode(`List-Id: ${listOf(n)}\n\n`)).fields,
);

function add(texts: TextSegments, from: number, to: number): void {
  const writer = new TextBatchWriter();
  for (let n = from; n < to; n++) writer.add({ text: bodyOf(n), fields: fieldsOf[n % 5] });
  const batch = writer.batch();
  for (let n = from; n < to; n++) texts.add(batch, n - from);
}

function answers(texts: TextSegments) {
  const holding = (text: string): number[] => {
    const out: number[] = [];
    texts.eachHolding(text, ['body'], (message) => out.push(message));
    return out;
  };
  const ofList: number[] = [];
  texts.eachFieldHolding(
    'list-id',
    'list-3',
    (message) => ofList.push(message),
    () => undefined,
  );
  const said = new Map<string | null, number>();
  texts.eachField('List-Id', (value, { length }) => said.set(value, (said.get(value) ?? 0) + length));
  return { holding, ofList: ofList.toSorted((a, b) => a - b), said };
}

function check(texts: TextSegments, count: number): void {
  const all = Array.from({ length: count }, (_, n) => n);
  const { holding, ofList, said } = answers(texts);
  // “öh” is looked for as searching folds it.
  for (const text of ['both', 'a9', 'b7 both', 'both b7', 'new3', '7 new30 a', 'nowhere', 'a96 b'])
    expect([text, holding(text)]).toEqual([text, all.filter((n) => bodyOf(n).includes(text))]);
  expect(holding('hohe3')).toEqual(all.filter((n) => bodyOf(n).includes('höhe3')));
  expect(ofList).toEqual(all.filter((n) => listOf(n).includes('list-3')));
  expect([...said.values()].reduce((a, b) => a + b)).toBe(count);
  expect(said.get('<list-1@x.test>')).toBe(all.filter((n) => n % 5 === 1).length);
}

test('as they are filled, taken back from storage, cut, and filled on', () => {
  const count = 2 * segmentSize + 100;
  const texts = new TextSegments();
  for (let from = 0; from < count; from += 500) add(texts, from, Math.min(count, from + 500));
  check(texts, count);

  const again = new TextSegments();
  for (const which of [0, 1, 2]) again.attach(texts.pack(which));
  check(again, count);
  // Words keep their order: what was stored is stored the same again.
  for (const which of [0, 1]) expect(again.pack(which)).toEqual(texts.pack(which));

  const cut = segmentSize + 1_000;
  again.drop(cut);
  check(again, cut);
  add(again, cut, count);
  check(again, count);
});

test('taken back from storage from the last one on: each can be asked at once, and joined they are what they were', () => {
  const count = 2 * segmentSize + 100;
  const texts = new TextSegments();
  add(texts, 0, count);
  const again = new TextSegments();
  for (const which of [2, 1, 0]) {
    again.attachEarly(which, texts.pack(which));
    expect(again.count).toBe(0);
    const found: number[] = [];
    again.earlyTexts(which).eachHolding('b7 both', ['body'], (message) => found.push(message));
    expect(found).toEqual(
      answers(texts)
        .holding('b7 both')
        .filter((n) => Math.floor(n / segmentSize) === which),
    );
  }
  again.join();
  check(again, count);

  // What is missing, and what stands behind it, is taken in anew.
  const holed = new TextSegments();
  for (const which of [2, 0]) holed.attachEarly(which, texts.pack(which));
  holed.join();
  check(holed, segmentSize);
  const short = new TextSegments();
  for (const which of [2, 1, 0]) short.attachEarly(which, texts.pack(which), which === 1 ? 50 : undefined);
  short.join();
  check(short, segmentSize + 50);
});
