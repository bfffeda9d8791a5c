import { AccountIndex } from '../mail/account';
import { kindNames, senderKind, senderKinds } from './kind';
import { isTold } from './told';

const a = (address: string) => ({ name: '', address });
const accounts = new AccountIndex([
  { id: 'me', name: 'Me', address: 'me@y.test' },
  { id: 'desk', name: 'Desk', address: 'desk@y.test' },
]);
const mail = { from: a('ann@x.test'), deliveredTo: '', to: [a('Me@Y.test')], cc: [], listId: '', automatic: false };

describe('the account of a message', () => {
  test.each([
    ['by To', mail, 0],
    ['by Cc', { ...mail, to: [a('bob@x.test')], cc: [a('desk@y.test')] }, 1],
    ['the trace before To', { ...mail, deliveredTo: 'desk@y.test' }, 1],
    ['what was sent, by its sender', { ...mail, from: a('desk@y.test') }, 1],
    ['nobody’s', { ...mail, to: [a('bob@x.test')], deliveredTo: 'bob@x.test' }, -1],
  ])('%s', (_what, message, index) => expect(accounts.of(message)).toBe(index));
});

describe('the kind of a message: exactly one', () => {
  test.each([
    ['to one of my addresses only', mail, 'alone'],
    ['to me and others', { ...mail, cc: [a('bob@x.test')] }, 'others'],
    ['to somebody else only', { ...mail, to: [a('bob@x.test')] }, 'others'],
    ['to nobody named', { ...mail, to: [] }, 'others'],
    ['RFC 2919: by a list', { ...mail, listId: 'tides.z.test' }, 'lists'],
    ['RFC 3834: by a machine', { ...mail, automatic: true }, 'machines'],
  ])('%s', (_what, message, kind) => expect(senderKind(message, accounts)).toBe(kind));
  test('each has a name', () => expect(senderKinds.map((kind) => kindNames[kind]).every(Boolean)).toBe(true));
  test('while no account is known, one recipient counts as the person', () =>
    expect(senderKind({ ...mail, to: [a('bob@x.test')] }, new AccountIndex([]))).toBe('alone'));
});

describe('being told', () => {
  const told = [
    { id: '1', by: 'sender', value: 'harbour.test' },
    { id: '2', by: 'sender', value: 'ann@x.test' },
    { id: '3', by: 'label', value: 'urgent' },
  ] as const;
  test.each([
    ['ann@x.test', [], true],
    ['bob@x.test', [], false],
    ['office@harbour.test', [], true],
    ['office@north.harbour.test', [], true],
    ['office@myharbour.test', [], false],
    ['bob@x.test', ['urgent'], true],
    ['', [], false],
  ])('%s %s', (from, labels, expected) => expect(isTold(told, from, labels)).toBe(expected));
});
