// The kinds of entries as the Register's pages name them.
import { countryDomains, countryName, ownCountryNames } from '../../core/senders/countries';
import { scriptCodes } from '../../core/text/writingSystem';
import { scriptName, type EntryKind } from '../../core/senders/register';

/** What an entry of a kind is about, in short, and what to type for it. */
export const kindWords: Record<EntryKind, { name: string; field: string; hint: string }> = {
  address: { name: 'Address', field: 'Address or domain', hint: '' },
  domain: { name: 'Domain', field: 'Address or domain', hint: '' },
  list: { name: 'Mailing list', field: 'Identifier of the list', hint: 'As its List-Id says: crew.harbour.example' },
  own: {
    name: 'Mail to an own address',
    field: 'Your own address',
    hint: 'Mail that was sent to this address of yours.',
  },
  country: { name: 'Country domain', field: 'Country', hint: 'How the domain of the sender ends.' },
  charset: {
    name: 'Character set',
    field: 'Character set',
    hint: 'What the message declares; most mail today says utf-8.',
  },
  script: {
    name: 'Writing system',
    field: 'Writing system',
    hint: 'In what letters the text is written, whatever it declares.',
  },
};

/** Character sets often seen in mail (IANA names), with what is written in them. */
const charsets: readonly (readonly [name: string, use: string])[] = [
  ['utf-8', 'everything'],
  ['us-ascii', 'English'],
  ['iso-8859-1', 'Western Europe'],
  ['iso-8859-2', 'Central Europe'],
  ['iso-8859-7', 'Greek'],
  ['iso-8859-8', 'Hebrew'],
  ['iso-8859-9', 'Turkish'],
  ['iso-8859-15', 'Western Europe'],
  ['windows-1250', 'Central Europe'],
  ['windows-1251', 'Cyrillic'],
  ['windows-1252', 'Western Europe'],
  ['windows-1255', 'Hebrew'],
  ['windows-1256', 'Arabic'],
  ['koi8-r', 'Cyrillic'],
  ['koi8-u', 'Cyrillic'],
  ['gb2312', 'Chinese'],
  ['gb18030', 'Chinese'],
  ['gbk', 'Chinese'],
  ['big5', 'Chinese'],
  ['iso-2022-jp', 'Japanese'],
  ['shift_jis', 'Japanese'],
  ['euc-jp', 'Japanese'],
  ['euc-kr', 'Korean'],
  ['ks_c_5601-1987', 'Korean'],
  ['tis-620', 'Thai'],
];

/** What can be picked for a kind: its value, the words beside it, and more by which it is found. */
export function picksOf(kind: EntryKind): readonly (readonly [value: string, words: string, also?: string])[] {
  if (kind === 'country')
    return countryDomains
      .map((code) => [code, `${countryName(code) ?? code} (.${code})`, ownCountryNames(code).join(' ')] as const)
      .sort((a, b) => a[1].localeCompare(b[1]));
  if (kind === 'script') return scriptCodes.map((code) => [code, scriptName(code)] as const);
  return charsets.map(([name, use]) => [name, `${name} (${use})`] as const);
}

/** Whether a kind's values are picked from a list. */
export const isPicked = (kind: EntryKind): boolean => kind === 'country' || kind === 'script' || kind === 'charset';
