// The inks of inks.css: told apart by everyone, and readable. Colour blindness as Machado, Oliveira and Fernandes model it
// (IEEE TVCG 15(6), 2009), differences by CIEDE2000 (ISO/CIE 11664-6), contrast by WCAG 2.2, 1.4.3 and 1.4.11; all three
// from the library culori.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  converter,
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  interpolate,
  wcagContrast,
  type Color,
} from 'culori';
import { inks } from '../core/mail/label';

const css = (name: string) => readFileSync(path.join(__dirname, name), 'utf8');
const rgb = converter('rgb');
const colourOf = (text: string, name: string): Color => {
  const found = new RegExp(`--${name}: (#[0-9a-f]{6});`).exec(text)?.[1];
  if (!found) throw new Error(`No colour is called ${name}.`);
  return rgb(found) as Color;
};

const [byDay, byNight] = css('inks.css').split("[data-theme='night']");
const [, paper, night] = css('theme.css').split("@plugin 'daisyui/theme'");
const themes = [
  { theme: 'paper', palette: byDay, grounds: paper },
  { theme: 'night', palette: byNight, grounds: night },
];
const sights: [string, (colour: Color) => Color][] = [
  ['full sight', (colour) => colour],
  ['protanopia', filterDeficiencyProt(1)],
  ['deuteranopia', filterDeficiencyDeuter(1)],
  ['tritanopia', filterDeficiencyTrit(1)],
];
const difference = differenceCiede2000();
const mixed = (a: Color, b: Color, share: number) => interpolate([b, a], 'oklab')(share);

describe.each(themes)('in the theme $theme', ({ palette, grounds }) => {
  const colours = inks.map((ink) => colourOf(palette, `ink-${ink}`));
  const ground = colourOf(grounds, 'color-base-100');
  const words = colourOf(grounds, 'color-base-content');

  test.each(sights)('any two are told apart with %s', (_, seen) => {
    const pairs = inks.flatMap((a, i) =>
      inks
        .slice(i + 1)
        .map((b, k) => ({ pair: `${a} ${b}`, apart: difference(seen(colours[i]), seen(colours[i + 1 + k])) })),
    );
    // A difference of 2.3 is just seen (common practice, no source); these are colours far from each other on a page.
    expect(pairs.filter(({ apart }) => apart < 11)).toEqual([]);
  });

  test('their edges are seen, and the words on their tints are read', () => {
    for (const colour of colours) {
      expect(wcagContrast(colour, ground)).toBeGreaterThanOrEqual(3);
      // The shares are those of .ink and .ink-mark.
      const tint = mixed(colour, ground, 0.16);
      for (const share of [0.55, 0.45])
        expect(wcagContrast(mixed(colour, words, share), tint)).toBeGreaterThanOrEqual(4.5);
      // An inked row: its own words on the strongest end of its tint.
      expect(wcagContrast(words, mixed(colour, ground, 0.18))).toBeGreaterThanOrEqual(7);
    }
  });
});
