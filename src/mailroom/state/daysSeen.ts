// The days that were seen to pass: on which the mailroom was open, or something was done or came. How long messages are
// kept is counted by them, never by a jump of the clock: a clock that is wrong may keep a message longer, not shorter.
const day = 86_400_000;
/** More are not needed: no place keeps its mail for longer. */
const mostDays = 4_000;

export class DaysSeen {
  /** Numbers of days since 1970, in their order. */
  private days: number[] = [];

  /** A moment was seen, milliseconds since 1970. Whether its day is a new one. */
  see(at: number): boolean {
    const its = Math.floor(at / day);
    if (!Number.isFinite(its)) return false;
    // Mostly it is the last one.
    let place = this.days.length;
    while (place > 0 && this.days[place - 1] > its) place--;
    if (this.days[place - 1] === its) return false;
    this.days.splice(place, 0, its);
    if (this.days.length > mostDays) this.days.shift();
    return true;
  }

  /** How many days were seen after the day of a moment. */
  since(at: number): number {
    const its = Math.floor(at / day);
    let [low, high] = [0, this.days.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.days[middle] > its) high = middle;
      else low = middle + 1;
    }
    return this.days.length - low;
  }

  /** When the last of them began, milliseconds since 1970; 0 where none was seen. */
  get newest(): number {
    return (this.days.at(-1) ?? 0) * day;
  }

  /** As they are stored. */
  get list(): readonly number[] {
    return this.days;
  }

  /** Takes up what was stored. */
  takeUp(list: readonly number[]): void {
    for (const its of list) this.see(its * day);
  }
}
