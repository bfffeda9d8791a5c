// What repeats: the words of a subject that stand in other subjects, too, and so say of which kind a message is.

/** Words of a subject that are looked at, and other subjects. */
const mostWords = 30;
const mostOthers = 2_000;
/** Fewer letters say nothing. */
const fewestLetters = 4;

const lettersIn = (text: string): number => text.match(/\p{L}/gu)?.length ?? 0;

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
      const times = looked.reduce((n, other) => n + (other.includes(stretch) ? 1 : 0), 0);
      if (times > most || (times === most && found !== null && lettersIn(stretch) > lettersIn(found)))
        [most, found] = [times, stretch];
    }
    if (most > 1) return found;
    best ??= found;
  }
  return best;
}
