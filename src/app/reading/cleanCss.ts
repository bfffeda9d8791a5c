// Styles of a message made harmless. The browser's own parser reads them, so that no escape or comment hides anything; of
// what it read only what computes a look is written anew.

/** Functions that compute a value from what stands in them: none of them fetches. */
const harmless = new Set(
  (
    'rgb rgba hsl hsla hwb lab lch oklab oklch color color-mix calc min max clamp round ' +
    'linear-gradient radial-gradient conic-gradient repeating-linear-gradient repeating-radial-gradient ' +
    'translate translatex translatey rotate scale scalex scaley skew matrix rect inset circle ellipse polygon ' +
    'minmax repeat fit-content counter counters cubic-bezier steps drop-shadow blur brightness contrast grayscale opacity'
  ).split(' '),
);

/** Rules within rules are read so deep. */
const deepest = 3;

const strings = /"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g;

/** Whether a declaration, as the browser writes it, fetches nothing and hides nothing. */
function isHarmless(name: string, value: string): boolean {
  // A custom property is written as it came, and may become anything where it is used.
  if (name.startsWith('--') || value.includes('<')) return false;
  const bare = value.replace(strings, '');
  if (/[\\"'@;{}]/.test(bare)) return false;
  return [...bare.matchAll(/([^\s(),/*+]*)\(/g)].every(
    ([, called]) => called === '' || harmless.has(called.toLowerCase()),
  );
}

/** The declarations of a style that are harmless, as text. */
export function cleanDeclarations(style: CSSStyleDeclaration): string {
  const out: string[] = [];
  for (const name of style) {
    const value = style.getPropertyValue(name);
    if (value === '' || !isHarmless(name, value)) continue;
    out.push(`${name}: ${value}${style.getPropertyPriority(name) ? ' !important' : ''}`);
  }
  return out.join('; ');
}

function cleanRules(rules: CSSRuleList, depth: number): string {
  let out = '';
  for (const rule of rules) {
    if (rule instanceof CSSStyleRule) {
      const declarations = cleanDeclarations(rule.style);
      // What would end the element that the style stands in.
      if (declarations && !rule.selectorText.includes('<')) out += `${rule.selectorText} { ${declarations} }\n`;
    } else if (rule instanceof CSSMediaRule && depth < deepest && !rule.conditionText.includes('<')) {
      const within = cleanRules(rule.cssRules, depth + 1);
      if (within) out += `@media ${rule.conditionText} {\n${within}}\n`;
    }
  }
  return out;
}

/** A style sheet without anything that fetches: no imports, fonts or pictures. */
export function cleanSheet(css: string): string {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(css);
  return cleanRules(sheet.cssRules, 0);
}
