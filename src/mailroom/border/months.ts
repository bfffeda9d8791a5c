// The months of a view, as they cross the border.

/** A month of a view: its rows are `first` up to, not including, `first + rows`. */
export interface Month {
  /** As 2026-09, local time. */
  month: string;
  first: number;
  rows: number;
}
