// Header fields in the index against reading them in the messages themselves.
import fc from 'fast-check';
import { foldSearch } from '../text/fold';
import { parseStructure } from '../mail/structure';
import { blanksAsOne } from '../text/blanks';
import { fieldText } from '../mail/fieldText';
import { TextBatchWriter, notKeptFields } from './textBatch';
import { TextSegment } from './textIndex';
import { Message } from '../mail/message';

const word = fc.constantFrom('tide', 'Höhe', 'no', 'notice', 'a-b', '東京', 'x\u0001y', '<1@x>');
const blank = fc.constantFrom(' ', '  ', '\t', ' \r\n ');
const value = fc.array(fc.tuple(word, blank), { maxLength: 4 }).map((parts) =>
  parts
    .map(([its, after]) => its + after)
    .join('')
    .trim(),
);
const name = fc.constantFrom('Subject', 'X-Kind', 'x-kind', 'Received', 'X-Empty');
const message = fc.array(fc.tuple(name, value), { maxLength: 5 });

const raw = (fields: readonly (readonly [string, string])[]) =>
  new TextEncoder().encode(`${fields.map(([its, said]) => `${its}: ${said}\r\n`).join('')}\r\ntide in the text\r\n`);

/** What only the message tells is read there, as the mailroom does it. */
function found(segment: TextSegment, fields: string, text: string, says: (message: number) => boolean): number[] {
  const out = new Set<number>();
  segment.eachFieldHolding(
    fields,
    text,
    (ids) => ids.forEach((id) => out.add(id)),
    (ids) => ids.forEach((id) => says(id) && out.add(id)),
  );
  return [...out].sort((a, b) => a - b);
}

test('HEADER finds just the messages whose field says it (RFC 9051, section 6.4.4), open and as it is stored', () => {
  fc.assert(
    fc.property(
      fc.array(message, { maxLength: 12 }),
      fc.constantFrom('subject', 'X-KIND', 'received', 'x-empty', 'none'),
      fc.constantFrom('', 'tide', 'HÖHE', 'no', 'ot', 'tide no', 'e n', 'tide  no', '東', '<1@', 'y'),
      (list, asked, sought) => {
        const text = foldSearch(blanksAsOne(sought));
        const fieldsOf = list.map((fields) => parseStructure(raw(fields)).fields);
        const says = (id: number) =>
          fieldsOf[id].some(
            (field) => field.key === asked.toLowerCase() && foldSearch(blanksAsOne(fieldText(field))).includes(text),
          );
        const writer = new TextBatchWriter();
        for (const fields of fieldsOf) writer.add({ text: 'tide in the text', fields });
        const open = new TextSegment();
        const batch = writer.batch();
        for (const at of list.keys()) open.add(batch, at);
        const expected = [...list.keys()].filter(says);
        for (const segment of [open, TextSegment.of(open.pack())])
          expect(found(segment, asked, text, says)).toEqual(expected);
      },
    ),
    { numRuns: 400 },
  );
});

test('what is kept is not read again: only how a message travelled, and what looks like our own marks', () => {
  const list = [
    [['Subject', 'tide'] as const, ['Received', 'tide'] as const],
    [['Subject', 'high x\u0001y tide'] as const],
    [['Subject', 'low'] as const],
  ];
  const writer = new TextBatchWriter();
  for (const fields of list) writer.add(new Message(raw(fields)));
  const segment = new TextSegment();
  for (const at of list.keys()) segment.add(writer.batch(), at);
  const toRead = (fields: string) => {
    const out: number[] = [];
    segment.eachFieldHolding(
      fields,
      'tide',
      () => undefined,
      (ids) => out.push(...ids),
    );
    return out;
  };
  expect(toRead('subject')).toEqual([1]);
  expect(toRead('received')).toEqual([0]);
  expect(notKeptFields.test('received')).toBe(true);
});
