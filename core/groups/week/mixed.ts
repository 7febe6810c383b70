import type { Highs, ModelStatusCode } from "highs";

/** As the `highs` package opens it: what may run a mixed program. */
export type MixedSolver = Pick<Highs, "createModel">;

/** What was found of a mixed program. */
export interface MixedFound {
  /** The values of the columns; undefined where none were found in time, or there are none. */
  readonly values: Float64Array | undefined;
  readonly value: number;
  /** No solution costs less. */
  readonly bound: number;
  /** `best`: nothing costs less; `none`: the rows stand against each other; `open`: the time was over. */
  readonly end: "best" | "none" | "open";
}

const OPTIMAL: ModelStatusCode = 7;
const INFEASIBLE: readonly ModelStatusCode[] = [8, 9];

/** A program to be minimised, of columns with costs and rows between them. */
export class MixedProgram {
  private readonly cost: number[] = [];
  private readonly lower: number[] = [];
  private readonly upper: number[] = [];
  private readonly whole: (0 | 1)[] = [];
  private readonly rowLower: number[] = [];
  private readonly rowUpper: number[] = [];
  private readonly starts: number[] = [0];
  private readonly indices: number[] = [];
  private readonly values: number[] = [];
  /** Costs that are there whatever is chosen. */
  offset = 0;

  /** @returns the number of the column */
  column({ cost = 0, lower = 0, upper = 1, whole = true }: Partial<Column>): number {
    this.cost.push(cost);
    this.lower.push(lower);
    this.upper.push(upper);
    this.whole.push(whole ? 1 : 0);
    return this.cost.length - 1;
  }

  /** A row over columns, each once. */
  row(terms: readonly Term[], { least = Number.NEGATIVE_INFINITY, most = Number.POSITIVE_INFINITY }: Range): void {
    if (terms.length === 0) return;
    for (const [column, factor] of terms) {
      this.indices.push(column);
      this.values.push(factor);
    }
    this.starts.push(this.indices.length);
    this.rowLower.push(least);
    this.rowUpper.push(most);
  }

  addCost(column: number, cost: number): void {
    this.cost[column] = (this.cost[column] as number) + cost;
  }

  /** Holds a column at a value, or lets it go between two. */
  hold(column: number, lower: number, upper = lower): void {
    this.lower[column] = lower;
    this.upper[column] = upper;
  }

  /** @param start values that are known to keep all rows, by column; the others are found */
  solve(
    solver: MixedSolver,
    { seconds, start }: { readonly seconds: number; readonly start?: ReadonlyMap<number, number> },
  ): MixedFound {
    const { cost, lower, upper, whole, rowLower, rowUpper } = this;
    if (cost.length === 0) return { values: new Float64Array(), value: this.offset, bound: this.offset, end: "best" };
    const model = solver.createModel({
      ...{ numCols: cost.length, numRows: rowLower.length, offset: this.offset },
      ...{ colCost: cost, colLower: lower, colUpper: upper, rowLower, rowUpper, integrality: whole },
      matrix: {
        format: "csr",
        numRows: rowLower.length,
        numCols: cost.length,
        starts: this.starts,
        indices: this.indices,
        values: this.values,
      },
    });
    try {
      model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 0, mip_abs_gap: 1e-6 });
      if (start) {
        const order = [...start].sort(([one], [other]) => one - other);
        model.setSolution({ indices: order.map(([at]) => at), values: order.map(([, value]) => value) });
      }
      model.run();
      const status = model.getModelStatus();
      if (INFEASIBLE.includes(status)) {
        const never = Number.POSITIVE_INFINITY;
        return { values: undefined, value: never, bound: never, end: "none" };
      }
      const found = Number(model.info.get("primal_solution_status")) === 2;
      const value = found ? model.getObjectiveValue() : Number.POSITIVE_INFINITY;
      const bound = whole.includes(1) ? Number(model.info.get("mip_dual_bound")) : value;
      const values = found ? model.getSolution().colValue : undefined;
      return { values, value, bound, end: status === OPTIMAL ? "best" : "open" };
    } finally {
      model.dispose();
    }
  }
}

interface Column {
  readonly cost: number;
  readonly lower: number;
  readonly upper: number;
  readonly whole: boolean;
}
/** A column and its factor. */
export type Term = readonly [column: number, factor: number];
interface Range {
  readonly least?: number;
  readonly most?: number;
}
