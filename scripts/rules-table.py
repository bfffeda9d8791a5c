#!/usr/bin/env python3
"""Writes src/core/rules/corpus.tsv: which messages of the real corpus a second, plain implementation finds for rules' conditions.

The messages are read by Python's email package, as in scripts/search-table.py; every condition is asked of every message
as docs/rules.md has it. A row is a condition: the first 8 hex digits of the SHA-256 of its JSON, how many messages it holds
for, and those of their numbers, joined by commas. No word of a stranger's mail is in the table.

usage: npm run -s rule-conditions | python3 scripts/rules-table.py > src/core/rules/corpus.tsv   (--show N: the numbers)
"""
import datetime
import email
import email.utils
import importlib.util
import json
import pathlib
import re
import sys

HERE = pathlib.Path(__file__).parent
spec = importlib.util.spec_from_file_location('search_table', HERE / 'search-table.py')
search_table = importlib.util.module_from_spec(spec)
spec.loader.exec_module(search_table)
words = search_table.corpus_table


def lower(text):
    """Upper and lower case of US-ASCII alike (RFC 4790, section 9.2)."""
    return re.sub(r'[A-Z]+', lambda found: found.group().lower(), text)


class Message(search_table.Message):
    def __init__(self, raw):
        super().__init__(raw)
        self.raw = {}
        for name, value in email.message_from_bytes(raw).raw_items():
            said = words.words(words.unfolded(words.raw_text(value))).strip()
            self.raw.setdefault(name.lower(), []).append(lower(said))

    def addresses(self, name):
        found = email.utils.getaddresses(self.raw.get(name, []))
        return [address for _, address in found if address]


def compares(how, text):
    return {
        'is': lambda value: value == text,
        'contains': lambda value: text in value,
        'begins': lambda value: value.startswith(text),
        'ends': lambda value: value.endswith(text),
        'domain': lambda value: value.endswith('@' + text),
    }[how]


def identifier(value):
    """The identifier of List-Id (RFC 2919, section 3)."""
    found = re.search(r'<([^<>]*)>', value)
    return (found.group(1) if found else value).strip()


def holds(condition, message):
    field, how = condition['field'], condition.get('how')
    if field == 'size':
        return message.size > condition['bytes'] if how == 'over' else message.size < condition['bytes']
    if field == 'date':
        if message.date is None:
            return False
        day = datetime.datetime.fromtimestamp(message.date, datetime.timezone.utc).date().isoformat()
        return {'before': day < condition['day'], 'on': day == condition['day'], 'since': day >= condition['day']}[how]
    if field == 'header' and how == 'there':
        return condition['name'].lower() in message.raw
    test = compares(how, lower(condition['text']))
    if field == 'header':
        return any(test(value) for value in message.raw.get(condition['name'].lower(), []))
    if field == 'subject':
        return any(value != '' and test(value) for value in message.raw.get('subject', []))
    if field == 'list':
        ids = [identifier(value) for value in message.raw.get('list-id', [])[:1]]
        return any(value != '' and test(value) for value in ids)
    names = ['to', 'cc'] if field == 'recipient' else [field]
    return any(test(address) for name in names for address in message.addresses(name))


def main():
    conditions = [line.rstrip('\n') for line in sys.stdin if line.strip()]
    files = sorted(search_table.ROOT.glob('*/*.txt'), key=lambda p: f'{p.parent.name}/{p.name}')
    messages = [Message(file.read_bytes()) for file in files]
    if '--show' in sys.argv:
        condition = json.loads(conditions[int(sys.argv[sys.argv.index('--show') + 1])])
        print(' '.join(str(i) for i, m in enumerate(messages) if holds(condition, m)))
        return
    print('condition\tcount\tfound')
    for line in conditions:
        found = [i for i, message in enumerate(messages) if holds(json.loads(line), message)]
        print(search_table.short(line), len(found), search_table.short(','.join(map(str, found))), sep='\t')


if __name__ == '__main__':
    main()
