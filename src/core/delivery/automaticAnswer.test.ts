// To whom an automatic answer must not go: RFC 3834, section 2, and RFC 5230, sections 4.5 and 4.6, line by line; the texts of
// both are quoted from memory, their rules are not. Forms of “no reply” are common practice, no source.
import { Message } from '../mail/message';
import { parseEnvelope } from '../mail/envelope';
import { answerOf, answerSigns, toAnswer } from './automaticAnswer';

const accounts = [
  { id: 'me', name: 'Me', address: 'me@y.test' },
  { id: 'desk', name: 'Desk', address: 'desk@y.test' },
];

function answered(fields: string) {
  const all = { From: 'Ann <ann@x.test>', To: 'Me <me@y.test>', Subject: 'Berth 4', 'Message-ID': '<1@x.test>' };
  const given = fields.split('\n').filter(Boolean);
  const names = new Set(given.map((field) => field.slice(0, field.indexOf(':')).toLowerCase()));
  const lines = [
    ...Object.entries(all)
      .filter(([name]) => !names.has(name.toLowerCase()))
      .map(([n, v]) => `${n}: ${v}`),
    ...given,
  ];
  const raw = new TextEncoder().encode(`${lines.join('\r\n')}\r\n\r\nHello\r\n`);
  return toAnswer(parseEnvelope(raw), answerSigns(new Message(raw).fields), accounts);
}

test('a plain message to one of the accounts is answered, from that account', () => {
  expect(answered('')).toEqual({ ok: true, to: { name: 'Ann', address: 'ann@x.test' }, account: accounts[0] });
  expect(answered('To: x@z.test\nCc: desk@y.test')).toMatchObject({ ok: true, account: accounts[1] });
  expect(answered('Auto-Submitted: no')).toMatchObject({ ok: true });
  expect(answered('Auto-Submitted: No (really)')).toMatchObject({ ok: true });
  expect(answered('Precedence: first-class')).toMatchObject({ ok: true });
});

test('RFC 3834, section 4: it goes to the return path, where there is one', () => {
  expect(answered('Return-Path: <ann.b@x.test>')).toMatchObject({ ok: true, to: { address: 'ann.b@x.test' } });
});

test.each([
  // RFC 3834, section 2: no answer to what was sent automatically.
  ['Auto-Submitted: auto-generated', 'automatically'],
  ['Auto-Submitted: auto-replied', 'automatically'],
  ['Auto-Submitted: AUTO-REPLIED; owner-email="x@x.test"', 'automatically'],
  ['Auto-Submitted: auto-notified', 'automatically'],
  ['Auto-Submitted: x-future', 'automatically'],
  // RFC 3834, section 2: nor to a null return path.
  ['Return-Path: <>', 'return path'],
  ['Return-Path:  < >', 'return path'],
  // RFC 3834, section 2: Precedence of list, junk or bulk.
  ['Precedence: bulk', 'bulk'],
  ['Precedence: list', 'bulk'],
  ['Precedence: Junk', 'bulk'],
  // RFC 5230, section 4.6: any field of a mailing list.
  ['List-Id: <news.x.test>', 'mailing list'],
  ['List-Help: <mailto:help@x.test>', 'mailing list'],
  ['List-Subscribe: <mailto:on@x.test>', 'mailing list'],
  ['List-Unsubscribe: <mailto:off@x.test>', 'mailing list'],
  ['List-Post: NO', 'mailing list'],
  ['List-Owner: <mailto:owner@x.test>', 'mailing list'],
  ['List-Archive: <https://x.test/>', 'mailing list'],
  // RFC 3834, section 2, and RFC 5230, section 4.6: addresses of lists, of programs and of roles.
  ['From: owner-news@x.test', 'program'],
  ['From: news-request@x.test', 'program'],
  ['From: news-owner@x.test', 'program'],
  ['From: MAILER-DAEMON@x.test', 'program'],
  ['From: listserv@x.test', 'program'],
  ['From: majordomo@x.test', 'program'],
  ['From: Postmaster@x.test', 'program'],
  ['From: no-reply@x.test', 'program'],
  ['From: noreply+17@x.test', 'program'],
  ['From: do_not_reply@x.test', 'program'],
  ['From: donotreply@x.test', 'program'],
  ['Return-Path: <news-bounces@x.test>', 'program'],
  // RFC 5230, section 4.5: one’s own address is not answered, and must stand in To or Cc.
  ['From: me@y.test', 'your own'],
  ['From: Desk@Y.test', 'your own'],
  ['To: everybody@x.test', 'none of your addresses'],
  ['To: undisclosed-recipients:;', 'none of your addresses'],
  // Nobody there.
  ['From: nobody', 'nobody to answer'],
  ['From: <>', 'nobody to answer'],
])('%s: not answered', (fields, why) => {
  expect(answered(fields)).toEqual({ ok: false, why: expect.stringContaining(why) });
});

test('what it says: Auto-Submitted (RFC 3834, section 5), In-Reply-To and References, no subject that smuggles a field', () => {
  const answer = answerOf(
    { messageId: '2@x.test', references: ['1@x.test'], subject: 'Berth\r\nBcc: x@z.test' },
    { account: 'me', subject: '', text: 'On Monday.' },
  );
  expect(answer).toEqual({
    subject: 'Auto: Berth Bcc: x@z.test',
    text: 'On Monday.',
    inReplyTo: '2@x.test',
    references: ['1@x.test', '2@x.test'],
    extra: [['Auto-Submitted', 'auto-replied']],
  });
  expect(
    answerOf({ messageId: '', references: [], subject: 'x' }, { account: 'me', subject: 'Away', text: '' }),
  ).toEqual({
    subject: 'Away',
    text: '',
    extra: [['Auto-Submitted', 'auto-replied']],
  });
});
