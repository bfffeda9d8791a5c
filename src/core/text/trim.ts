// Taking characters off the ends of a text. A pattern such as /x+$/ tries every place at which a run begins, and takes the
// square of its length where the run does not reach the end: a stranger's text may be one long run.

/** A text without some characters at its end. `characters`: each by itself. */
export function trimEndOf(text: string, characters: string): string {
  let end = text.length;
  while (end > 0 && characters.includes(text[end - 1])) end--;
  return end === text.length ? text : text.slice(0, end);
}

/** A text without some characters at either end. */
export function trimOf(text: string, characters: string): string {
  let from = 0;
  while (from < text.length && characters.includes(text[from])) from++;
  return trimEndOf(text.slice(from), characters);
}
