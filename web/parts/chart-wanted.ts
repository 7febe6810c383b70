interface ChartLine {
  readonly name: string;
  /** Values by the places of the x axis; null where there is none. */
  readonly values: readonly (number | null)[];
  /** Which axis it is read on. */
  readonly axis: "left" | "right";
}

export interface ChartWanted {
  /** What it shows, in a sentence, for those who cannot see it; a table with the figures stands beside it. */
  readonly label: string;
  readonly places: readonly string[];
  readonly lines: readonly ChartLine[];
  /** A level to aim for, on the left axis. */
  readonly aim?: { readonly name: string; readonly value: number } | undefined;
}
