import { Matrix, SingularValueDecomposition } from "ml-matrix";
import { leastSquares, seeded } from ".";

describe("least squares", () => {
  it("agrees with singular values (ml-matrix) on a made-up design", () => {
    const random = seeded(8);
    const rows = Array.from({ length: 12 }, () => [1, random.normal(), random.normal()]);
    const values = rows.map(([, a = 0, b = 0]) => 2 + 3 * a - b + 0.1 * random.normal());
    const made = leastSquares(rows, values);
    const reference = new SingularValueDecomposition(new Matrix(rows))
      .solve(Matrix.columnVector(values))
      .to1DArray();
    made?.coefficients.forEach((coefficient, at) => expect(coefficient).toBeCloseTo(reference[at] ?? NaN, 9));
    expect(made?.freedom).toBe(9);
  });
  it("gives means and their variances for columns of arms (arithmetic)", () => {
    const made = leastSquares(
      [
        [1, 0],
        [1, 0],
        [0, 1],
      ],
      [1, 3, 5],
    );
    expect(made?.coefficients).toEqual([expect.closeTo(2, 9), expect.closeTo(5, 9)]);
    expect([made?.covariance.get(0, 0), made?.squares]).toEqual([expect.closeTo(0.5, 9), expect.closeTo(2, 9)]);
  });
  it("says nothing of columns that can't be told apart", () =>
    expect(
      leastSquares(
        [
          [1, 2],
          [2, 4],
          [3, 6],
        ],
        [1, 2, 3],
      ),
    ).toBeNull());
});
