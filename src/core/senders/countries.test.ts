// Country domains by name: English ones of ISO 3166-1, and those of the country's own languages (CLDR, by the host).
import { countryDomains, countryName, ownCountryNames } from './countries';

test.each([
  ['ch', ['Schweiz', 'Suisse', 'Svizzera']],
  ['de', ['Deutschland']],
  ['jp', ['日本']],
  ['fi', ['Suomi', 'Finland']],
  ['gr', ['Ελλάδα']],
  ['ru', ['Россия']],
])('%s is found as %j', (code, names) => expect(ownCountryNames(code)).toEqual(expect.arrayContaining(names)));

test('what is no country’s has none; every country has one', () => {
  for (const code of ['eu', 'su', 'zz', 'com', '']) expect(ownCountryNames(code)).toEqual([]);
  const without = countryDomains.filter((code) => countryName(code) && ownCountryNames(code).length === 0);
  // Reserved codes, and places where nobody lives.
  expect(without.length).toBeLessThan(12);
});
