// What a count on some messages says of all of them: the exact bound of Clopper and Pearson (Biometrika 26, 1934).

/** How often such a bound holds. */
export const holdsIn = 0.95;

/** The logarithms of n!, from 0 on; made longer as they are asked for. */
const factorials = [0];
function logFactorial(n: number): number {
  for (let k = factorials.length; k <= n; k++) factorials.push(factorials[k - 1] + Math.log(k));
  return factorials[n];
}

/** The chance that at most `lost` of `n` are lost where each is with the chance `p`, between 0 and 1. */
function chanceOfAtMost(lost: number, n: number, p: number): number {
  let sum = 0;
  for (let k = 0; k <= lost; k++)
    sum += Math.exp(
      logFactorial(n) - logFactorial(k) - logFactorial(n - k) + k * Math.log(p) + (n - k) * Math.log1p(-p),
    );
  return sum;
}

/**
 * The largest share of all messages, in per cent, that may be lost where `lost` of `n` were, both whole numbers: in 95 of 100
 * such counts the true share is no larger. 100 where nothing was counted.
 */
export function atMost(lost: number, n: number): number {
  if (lost >= n) return 100;
  let [low, high] = [lost / n, 1];
  // The chance falls as the share grows: halving finds where it has fallen to what is left.
  for (let step = 0; step < 50; step++) {
    const middle = (low + high) / 2;
    if (chanceOfAtMost(lost, n, middle) > 1 - holdsIn) low = middle;
    else high = middle;
  }
  return 100 * high;
}
