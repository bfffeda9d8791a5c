// RFC 2369, section 3.2, and RFC 8058, section 8: the examples, from memory.
import { readHeader } from '../mail/header';
import { leavingWays } from './leavingWays';

function ways(header: string, signed = true) {
  const raw = new TextEncoder().encode(`${header.replace(/\n/g, '\r\n')}\r\n\r\n`);
  const text = new TextDecoder('latin1').decode(raw);
  return leavingWays(readHeader(raw, text, 0, raw.length).fields, signed);
}
const post = '\nList-Unsubscribe-Post: List-Unsubscribe=One-Click';

test.each([
  [
    'a message with a subject',
    'List-Unsubscribe: <mailto:list@host.com?subject=unsubscribe>',
    [{ by: 'mail', to: 'list@host.com', subject: 'unsubscribe', text: '' }],
  ],
  [
    'a comment before it, and what the message says',
    'List-Unsubscribe: (Use this command to get off the list)\n <mailto:list-manager@host.com?body=unsubscribe%20list>',
    [{ by: 'mail', to: 'list-manager@host.com', subject: 'unsubscribe', text: 'unsubscribe list' }],
  ],
  [
    'a page, and a message',
    'List-Unsubscribe: <http://www.host.com/list.cgi?cmd=unsub&lst=list>,\n <mailto:list-request@host.com?subject=unsubscribe>',
    [
      { by: 'mail', to: 'list-request@host.com', subject: 'unsubscribe', text: '' },
      { by: 'page', url: 'http://www.host.com/list.cgi?cmd=unsub&lst=list' },
    ],
  ],
  [
    'one request (RFC 8058, section 8.1)',
    `List-Unsubscribe: <https://example.com/unsubscribe/opaquepart>${post}`,
    [{ by: 'one-click', url: 'https://example.com/unsubscribe/opaquepart' }],
  ],
  [
    'one request beside a message (RFC 8058, section 8.2)',
    `List-Unsubscribe:\n <mailto:listrequest@example.com?subject=unsubscribe>,\n <https://example.com/unsubscribe.html?opaque=123456789>${post}`,
    [
      { by: 'one-click', url: 'https://example.com/unsubscribe.html?opaque=123456789' },
      { by: 'mail', to: 'listrequest@example.com', subject: 'unsubscribe', text: '' },
    ],
  ],
])('%s', (_what, header, expected) => {
  expect(ways(header)).toEqual(expected);
});

test('one request needs https, the field that says so, and a signature that holds (RFC 8058, sections 3 and 4)', () => {
  const page = [{ by: 'page', url: 'https://example.com/x' }];
  expect(ways('List-Unsubscribe: <https://example.com/x>')).toEqual(page);
  expect(ways(`List-Unsubscribe: <https://example.com/x>${post}`, false)).toEqual(page);
  expect(ways(`List-Unsubscribe: <http://example.com/x>${post}`)).toEqual([
    { by: 'page', url: 'http://example.com/x' },
  ]);
  expect(ways('List-Unsubscribe: <https://example.com/x>\nList-Unsubscribe-Post: Something=Else')).toEqual(page);
});

test.each([
  ['nothing', 'Subject: x'],
  ['no brackets', 'List-Unsubscribe: https://example.com/x'],
  ['a script', 'List-Unsubscribe: <javascript:alert(1)>'],
  ['no address', 'List-Unsubscribe: <mailto:>, <mailto:a>, <mailto:%ZZ@x.test>'],
  [
    'several recipients, or fields of their own',
    'List-Unsubscribe: <mailto:a@x.test,b@x.test>, <mailto:a@x.test%0ABcc:b@x.test>',
  ],
  ['a file', 'List-Unsubscribe: <file:///etc/passwd>'],
])('no way to leave: %s', (_what, header) => {
  expect(ways(header)).toEqual([]);
});

test('a line break in a subject writes no field: it is a blank', () => {
  expect(ways('List-Unsubscribe: <mailto:a@x.test?subject=off%0D%0ABcc:%20eve@x.test>')).toEqual([
    { by: 'mail', to: 'a@x.test', subject: 'off Bcc: eve@x.test', text: '' },
  ]);
});
