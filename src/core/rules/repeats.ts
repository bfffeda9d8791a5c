// What repeats: the words of a subject that stand in other subjects, too, and so say of which kind a message is.

/** Words of a subject that are looked at, and other subjects. */
const mostWords = 30;
const mostOthers = 2_000;
/** Fewer letters say nothing. */
const fewestLetters = 4;

/** Languages whose names of days and months are known. */
const languages = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'sv', 'nb', 'da', 'fi'];

function namesOfTimes(): Set<string> {
  const names = languages.flatMap((language) =>
    (['long', 'short'] as const).flatMap((form) => {
      const day = new Intl.DateTimeFormat(language, { weekday: form, timeZone: 'UTC' });
      const month = new Intl.DateTimeFormat(language, { month: form, timeZone: 'UTC' });
      return Array.from({ length: 12 }, (_, n) => [day.format(n * 86_400_000), month.format(Date.UTC(2000, n, 1))]);
    }),
  );
  return new Set(names.flat().map((name) => name.toLowerCase().replace(/\.$/, '')));
}

/** Names of days and months say when, not of which kind. Made when first asked for: that takes some milliseconds. */
let times: ReadonlySet<string> | null = null;

/** How many letters of a text say of which kind it is. */
function lettersIn(text: string): number {
  const names = (times ??= namesOfTimes());
  const words = text.match(/\p{L}+/gu) ?? [];
  return words.reduce((n, word) => n + (names.has(word) ? 0 : word.length), 0);
}

/**
 * The longest stretch of whole words of a subject that stands in at least two others, or else in one; null where none does.
 * All in lower case, as base subjects are. Of stretches with as many words the one that stands in more, then the one
 * with more letters.
 */
export function repeatedWords(subject: string, others: readonly string[]): string | null {
  const looked = others.slice(0, mostOthers);
  const words = [...subject.matchAll(/\S+/g)]
    .slice(0, mostWords)
    .map((word) => [word.index, word.index + word[0].length]);
  let best: string | null = null;
  for (let length = words.length; length > 0; length--) {
    let most = 0;
    let found: string | null = null;
    for (let from = 0; from + length <= words.length; from++) {
      const stretch = subject.slice(words[from][0], words[from + length - 1][1]);
      if (lettersIn(stretch) < fewestLetters) continue;
      const held = looked.reduce((n, other) => n + (other.includes(stretch) ? 1 : 0), 0);
      if (held > most || (held === most && found !== null && lettersIn(stretch) > lettersIn(found)))
        [most, found] = [held, stretch];
    }
    if (most > 1) return found;
    best ??= found;
  }
  return best;
}
