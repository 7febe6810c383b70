export interface ChartSeries {
  readonly name: string;
  /** Values by the places of the x axis; null where there is none. */
  readonly values: readonly (number | null)[];
  /** Which axis it is read on; the right one is in percent. */
  readonly axis: "left" | "right";
  /** How it is drawn; a bar and each kind of line differ without their colour too. */
  readonly as: "line" | "dashes" | "dots" | "marks" | "bar";
}

export interface ChartWanted {
  /** What it shows, in a sentence, for those who cannot see it; a table with the figures stands beside it. */
  readonly label: string;
  readonly places: readonly string[];
  readonly series: readonly ChartSeries[];
  /** A word to each place, shown when it is pointed at. */
  readonly notes?: readonly (string | null)[] | undefined;
  /** Between these, in percent on the right axis, what the first line shows may lie. */
  readonly band?: { readonly low: readonly number[]; readonly high: readonly number[] } | undefined;
  /** A level to aim for, on the left axis. */
  readonly aim?: { readonly name: string; readonly value: number } | undefined;
}
