/** The least a pivot may be: a matrix that is barely definite is taken for one that is. */
const LEAST_PIVOT = 1e-12;

/** Lower triangle of Cholesky's factor of a symmetric positive definite matrix, given and returned row by row. */
export function choleskyRoot(matrix: ArrayLike<number>, n: number): Float64Array {
  const root = new Float64Array(n * n);
  for (let a = 0; a < n; a++)
    for (let b = 0; b <= a; b++) {
      let value = matrix[a * n + b];
      for (let c = 0; c < b; c++) value -= root[a * n + c] * root[b * n + c];
      root[a * n + b] = a === b ? Math.sqrt(Math.max(LEAST_PIVOT, value)) : value / root[b * n + b];
    }
  return root;
}

/** Solves Σx = y by the Cholesky factor of Σ. */
export function solveBy(root: Float64Array, y: ArrayLike<number>): Float64Array {
  const n = y.length;
  const x = Float64Array.from(y);
  for (let a = 0; a < n; a++) {
    for (let b = 0; b < a; b++) x[a] -= root[a * n + b] * x[b];
    x[a] /= root[a * n + a];
  }
  for (let a = n - 1; a >= 0; a--) {
    for (let b = a + 1; b < n; b++) x[a] -= root[b * n + a] * x[b];
    x[a] /= root[a * n + a];
  }
  return x;
}

/** ln of the determinant of the matrix a Cholesky factor is of. */
export function logDeterminant(root: Float64Array, n: number): number {
  let half = 0;
  for (let a = 0; a < n; a++) half += Math.log(root[a * n + a]);
  return 2 * half;
}
