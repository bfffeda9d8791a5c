import { accountTrouble } from './account';

const others = [{ id: '1', name: 'Desk', address: 'desk@ferry.example' }];

test.each([
  [{ name: '', address: '' }, /a name and an address/],
  [{ name: '', address: 'mara@ferry.example' }, /Type a name/],
  [{ name: 'Mara', address: 'mara' }, /“mara” is no address/],
  [{ name: 'Mara', address: 'desk@ferry.example' }, /an account already/],
])('an account %j is refused in words', (typed, says) => {
  expect(accountTrouble({ id: '2', ...typed }, others)).toMatch(says);
});

test('a whole account is taken', () => {
  expect(accountTrouble({ id: '2', name: 'Mara', address: 'mara@ferry.example' }, others)).toBeNull();
});
