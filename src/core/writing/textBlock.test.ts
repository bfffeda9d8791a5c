import { signedHtml, signedText, textBlockTrouble } from './blockText';
import { blockNamed, typedName } from './textBlock';
import { flowed } from './flowed';
import { htmlLines } from './htmlLines';
import { wholeText } from './draftText';

const block = (name: string) => ({ id: name, name, html: `<p>${name}</p>` });
const blocks = [block('thanks'), block('thursday'), block('berth')];

test('a block is named by a few letters behind a semicolon, as far as they mean one', () => {
  expect(typedName('Dear Ann, ;ber')).toBe('ber');
  expect(typedName('a;b')).toBeNull();
  expect(typedName('; x')).toBeNull();
  expect(blockNamed('BER', blocks)?.name).toBe('berth');
  expect(blockNamed('th', blocks)).toBeNull();
  expect(blockNamed('thu', blocks)?.name).toBe('thursday');
  expect(textBlockTrouble(block('berth'), blocks)).toMatch(/already/);
  expect(textBlockTrouble({ ...block('x'), html: '<p> </p>' }, blocks)).toMatch(/Nothing/);
});

test('RFC 3676, section 4.3: the signature stands behind its mark, above what is quoted', () => {
  const signature = '<p>Ingrid<br>Ferry</p>';
  expect(signedText(signature)).toBe('\n\n-- \nIngrid\nFerry');
  expect(signedHtml('<p></p>')).toBe('');
  const draft = {
    rich: true,
    html: '<p>Hi</p>',
    text: 'Hi',
    signed: true,
    quoted: { html: '<blockquote><p>q</p></blockquote>', text: '> q' },
  };
  expect(flowed(htmlLines(wholeText(draft, signature).html ?? ''))).toBe(
    'Hi\r\n\r\n-- \r\n\r\nIngrid\r\nFerry\r\n\r\n> q\r\n',
  );
  expect(wholeText({ ...draft, rich: false }, signature).text).toBe('Hi\n\n-- \nIngrid\nFerry\n\n> q');
  expect(wholeText({ ...draft, signed: false }, signature).html).toBe('<p>Hi</p><blockquote><p>q</p></blockquote>');
});
