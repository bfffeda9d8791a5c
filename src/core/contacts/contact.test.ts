import { contactTrouble, newContact } from './contact';

const here = [newContact('1', 'Ana', 'ana@harbour.example')];

test.each([
  ['', /Type the address/],
  ['  ', /Type the address/],
  ['harbour.example', /one address/],
  ['not one at all', /./],
  // Case is of no account (RFC 5321, section 2.4, for the domain; common practice, no source, for what stands before it).
  ['ANA@Harbour.example', /already/],
])('as a contact “%s” is refused in words', (typed, says) => {
  expect(contactTrouble(typed, here)).toMatch(says);
});

test('a new address is taken', () => {
  expect(contactTrouble(' bo@harbour.example ', here)).toBeNull();
});
