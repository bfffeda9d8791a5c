// Whether some conditions can hold together: clauses over yes-or-no variables, searched with unit propagation (Davis,
// Putnam, Logemann, Loveland 1962). Rule sets are small; what takes too long is left undecided and never claimed.

/** A variable is a number from 1 up; a literal is it, or minus it for its opposite. */
export type Literal = number;

export class Clauses {
  private readonly list: Literal[][] = [];
  private readonly where = new Map<Literal, Literal[][]>();
  private variables = 0;

  variable(): Literal {
    return ++this.variables;
  }

  /** One of these holds. */
  add(...literals: Literal[]): void {
    this.list.push(literals);
    for (const literal of literals) {
      const its = this.where.get(literal);
      if (its) its.push(literals);
      else this.where.set(literal, [literals]);
    }
  }

  /** A variable that holds just where all of some literals do. */
  all(literals: readonly Literal[]): Literal {
    const whole = this.variable();
    for (const literal of literals) this.add(-whole, literal);
    this.add(whole, ...literals.map((literal) => -literal));
    return whole;
  }

  /** A variable that holds just where any of some literals does. */
  any(literals: readonly Literal[]): Literal {
    return -this.all(literals.map((literal) => -literal));
  }

  /**
   * Whether all clauses can hold, and these literals with them; null where that was not found out within `steps`
   * decisions.
   */
  holdWith(literals: readonly Literal[], steps = 3_000): boolean | null {
    const value = new Int8Array(this.variables + 1);
    const is = (literal: Literal): number => (literal > 0 ? value[literal] : -value[-literal]);
    const trail: Literal[] = [];
    /** Takes a literal as true, and all that follows from it; false where that contradicts itself. */
    const assume = (first: Literal): boolean => {
      const queue = [first];
      for (let at = 0; at < queue.length; at++) {
        const literal = queue[at];
        if (is(literal) > 0) continue;
        if (is(literal) < 0) return false;
        value[Math.abs(literal)] = literal > 0 ? 1 : -1;
        trail.push(literal);
        for (const clause of this.where.get(-literal) ?? []) {
          let open = 0;
          let last = 0;
          for (const one of clause) {
            const its = is(one);
            if (its > 0) {
              open = 2;
              break;
            }
            if (its === 0) {
              open++;
              last = one;
            }
          }
          if (open === 0) return false;
          if (open === 1) queue.push(last);
        }
      }
      return true;
    };
    const undo = (to: number) => {
      while (trail.length > to) value[Math.abs(trail.pop() ?? 0)] = 0;
    };
    for (const literal of literals) if (!assume(literal)) return false;
    for (const clause of this.list)
      if (clause.length === 1 && !assume(clause[0])) return false;
      else if (clause.length === 0) return false;

    let left = steps;
    const search = (): boolean | null => {
      const open = this.list.find((clause) => !clause.some((one) => is(one) > 0));
      if (!open) return true;
      if (left-- <= 0) return null;
      const literal = open.find((one) => is(one) === 0);
      if (literal === undefined) return false;
      const mark = trail.length;
      for (const choice of [literal, -literal]) {
        if (assume(choice)) {
          const found = search();
          if (found !== false) return found;
        }
        undo(mark);
      }
      return false;
    };
    return search();
  }
}
