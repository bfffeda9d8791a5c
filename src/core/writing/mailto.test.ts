// The examples of RFC 6068, sections 1 to 6.
import { readMailto } from './mailto';

const to = (...list: string[]) => list.map((address) => ({ name: '', address }));
const link = (text: string) => readMailto(text);

test('RFC 6068, section 6.1: addresses, subject, body, lines, several fields', () => {
  expect(link('mailto:chris@example.com')).toMatchObject({ to: to('chris@example.com'), subject: '', body: '' });
  expect(link('mailto:infobot@example.com?subject=current-issue')?.subject).toBe('current-issue');
  expect(link('mailto:infobot@example.com?body=send%20current-issue')?.body).toBe('send current-issue');
  expect(link('mailto:infobot@example.com?body=send%20current-issue%0D%0Asend%20index')?.body).toBe(
    'send current-issue\nsend index',
  );
  expect(link('mailto:list@example.org?In-Reply-To=%3C3469A91.D10AF4C@example.com%3E')?.inReplyTo).toBe(
    '3469A91.D10AF4C@example.com',
  );
  expect(link('mailto:majordomo@example.com?body=subscribe%20bamboo-l')?.body).toBe('subscribe bamboo-l');
  expect(link('mailto:joe@example.com?cc=bob@example.com&body=hello')).toMatchObject({
    to: to('joe@example.com'),
    cc: to('bob@example.com'),
    body: 'hello',
  });
  expect(link('mailto:joe@example.com?cc=bob@example.com?body=hello')?.body).toBe('');
});

test('RFC 6068, section 2: several addresses, in the path or as a field', () => {
  const two = to('addr1@an.example', 'addr2@an.example');
  for (const one of [
    'mailto:addr1@an.example,addr2@an.example',
    'mailto:?to=addr1@an.example,addr2@an.example',
    'mailto:addr1@an.example?to=addr2@an.example',
  ])
    expect(link(one)?.to).toEqual(two);
});

test('RFC 6068, section 6.2: characters that have to be encoded', () => {
  expect(link('mailto:gorby%25kremvax@example.com')?.to).toEqual(to('gorby%kremvax@example.com'));
  expect(link('mailto:unlikely%3Faddress@example.com?blat=foop')?.to).toEqual(to('unlikely?address@example.com'));
  expect(link('mailto:Mike%26family@example.org')?.to).toEqual(to('Mike&family@example.org'));
  expect(link('mailto:%22not%40me%22@example.org')?.to).toEqual(to('"not@me"@example.org'));
  expect(link('mailto:%22oh%5C%5Cno%22@example.org')?.to[0].address).toMatch(/^"oh\\.*no"@example\.org$/);
});

test('RFC 6068, section 6.3: UTF-8, encoded words, domains with other letters', () => {
  expect(link('mailto:user@example.org?subject=caf%C3%A9')?.subject).toBe('café');
  expect(link('mailto:user@example.org?subject=%3D%3Futf-8%3FQ%3Fcaf%3DC3%3DA9%3F%3D')?.subject).toBe('café');
  expect(link('mailto:user@example.org?subject=%3D%3Fiso-8859-1%3FQ%3Fcaf%3DE9%3F%3D')?.subject).toBe('café');
  expect(link('mailto:user@example.org?subject=caf%C3%A9&body=caf%C3%A9')?.body).toBe('café');
  expect(link('mailto:user@%E7%B4%8D%E8%B1%86.example.org?subject=Test&body=NATTO')).toMatchObject({
    to: to('user@納豆.example.org'),
    subject: 'Test',
    body: 'NATTO',
  });
});

test('a link smuggles in nothing: no line of a header, no file, no sender; what is no link is none', () => {
  const read = link('mailto:a@b.test?subject=x%0D%0ABcc:%20c@d.test&attach=/etc/passwd&from=e@f.test&body=%00');
  expect(read).toEqual({ to: to('a@b.test'), cc: [], bcc: [], subject: 'x Bcc: c@d.test', body: '', inReplyTo: '' });
  expect(link('https://b.test')).toBeNull();
  expect(link('mailto:%E0%A4%A')).not.toBeNull();
});
