import { Matrix, determinant, inverse } from "ml-matrix";

/** A linear model fitted to values. */
export interface LeastSquares {
  coefficients: number[];
  /** Of the coefficients, for values of variance 1. */
  covariance: Matrix;
  /** What is left over, and its degrees of freedom. */
  squares: number;
  freedom: number;
}

/**
 * Ordinary least squares by the normal equations.
 *
 * @param rows  of the design, n of k figures each
 * @param values length n
 * @param apart least determinant of the columns' correlations from which they are told apart; 0 takes whatever
 *   can be inverted
 * @returns null where the columns can't be told apart
 * @example leastSquares([[1, 0], [1, 1]], [1, 3], 0)?.coefficients // → [1, 2]
 */
export function leastSquares(
  rows: ArrayLike<number>[],
  values: ArrayLike<number>,
  apart = 1e-6,
): LeastSquares | null {
  const design = new Matrix(rows.map((row) => Array.from(row)));
  const transposed = design.transpose();
  const information = transposed.mmul(design);
  if (apart > 0 && !(determinantOfCorrelations(information) > apart)) return null;
  const y = Matrix.columnVector(values);
  const solved = solveNormal(information, transposed.mmul(y));
  if (!solved) return null;
  const { coefficients, covariance } = solved;
  const left = design.mmul(coefficients).sub(y).to1DArray();
  return {
    coefficients: coefficients.to1DArray(),
    covariance,
    squares: left.reduce((sum, off) => sum + off * off, 0),
    freedom: values.length - design.columns,
  };
}

/**
 * Normal equations solved: where many models share their columns, the sums are taken once.
 * @param information products of the columns with each other, k × k; @param moments with the values, k × 1
 * @returns null where the columns can't be told apart
 */
export function solveNormal(
  information: Matrix,
  moments: Matrix,
): { coefficients: Matrix; covariance: Matrix } | null {
  const covariance = invertible(information);
  return covariance && { coefficients: covariance.mmul(moments), covariance };
}

function determinantOfCorrelations(information: Matrix): number {
  const scale = information.diagonal().map(Math.sqrt);
  const scaled = information.clone().divRowVector(scale).divColumnVector(scale);
  return determinant(scaled);
}

function invertible(information: Matrix): Matrix | null {
  try {
    const made = inverse(information);
    return made.to1DArray().every(Number.isFinite) ? made : null;
  } catch {
    return null;
  }
}
