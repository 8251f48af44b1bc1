// Straight least squares: coefficients, their covariance, and what is left.
import { Matrix, QrDecomposition } from 'ml-matrix';

export interface Fitted {
  readonly coefficients: readonly number[];
  /** Inverse of XᵀX: times the variance of one reading it is the covariance of the coefficients. */
  readonly inverse: readonly (readonly number[])[];
  readonly residuals: readonly number[];
  /** Sum of the squared residuals. */
  readonly rest: number;
  /** Readings less coefficients. */
  readonly degrees: number;
}

/** A column that is this small beside its own size, once the others are taken off it, tells nothing of its own. */
const TELLS_NOTHING = 1e-9;

/**
 * Fit y = X·b by least squares, through QR.
 * @param rows one row of X a reading, all of one length
 * @returns null where the columns do not tell their coefficients apart, where readings are fewer, or where one is no number
 * @example leastSquares([[1, 0], [1, 1], [1, 2]], [1, 3, 5])?.coefficients // [1, 2]
 */
export function leastSquares(rows: readonly (readonly number[])[], values: readonly number[]): Fitted | null {
  const columns = rows[0]?.length ?? 0;
  if (columns === 0 || rows.length !== values.length || rows.length < columns) return null;
  if (![...values, ...rows.flat()].every(Number.isFinite)) return null;
  // Columns of one size, so that what is small by its unit is not taken for nothing.
  const sizes = Array.from({ length: columns }, (_, at) => Math.hypot(...rows.map((row) => row[at] as number)) || 1);
  const x = new Matrix(rows.map((row) => row.map((one, at) => one / (sizes[at] as number))));
  const qr = new QrDecomposition(x);
  const diagonal = Array.from({ length: columns }, (_, at) => Math.abs(qr.upperTriangularMatrix.get(at, at)));
  if (diagonal.some((one) => !(one > TELLS_NOTHING))) return null;
  const solved = qr.solve(Matrix.columnVector([...values])).to1DArray();
  const coefficients = solved.map((one, at) => one / (sizes[at] as number));
  const residuals = values.map((one, at) =>
    (rows[at] as readonly number[]).reduce((left, cell, column) => left - cell * (coefficients[column] as number), one),
  );
  const half = new QrDecomposition(qr.upperTriangularMatrix).solve(Matrix.eye(columns));
  const whole = half.mmul(half.transpose());
  const inverse = Array.from({ length: columns }, (_, i) =>
    Array.from({ length: columns }, (_unused, j) => whole.get(i, j) / ((sizes[i] as number) * (sizes[j] as number))),
  );
  return {
    coefficients,
    inverse,
    residuals,
    rest: residuals.reduce((sum, one) => sum + one * one, 0),
    degrees: rows.length - columns,
  };
}
