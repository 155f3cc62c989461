/** Eigenvalues of a symmetric matrix, the largest first, and its unit eigenvectors in the same order. */
export interface Eigen {
  values: number[];
  vectors: number[][];
}

const SWEEPS = 30;
const SMALL = 1e-22;

/** Turns rows and columns `p` and `q` so that what stands where they cross becomes 0. */
function turn(matrix: number[][], vectors: number[][], p: number, q: number): void {
  const n = matrix.length;
  const theta = (matrix[q][q] - matrix[p][p]) / (2 * matrix[p][q]);
  const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1));
  const c = 1 / Math.hypot(t, 1);
  const s = t * c;
  for (let k = 0; k < n; k++) {
    const [a, b] = [matrix[k][p], matrix[k][q]];
    matrix[k][p] = c * a - s * b;
    matrix[k][q] = s * a + c * b;
  }
  for (let k = 0; k < n; k++) {
    const [a, b] = [matrix[p][k], matrix[q][k]];
    matrix[p][k] = c * a - s * b;
    matrix[q][k] = s * a + c * b;
    const [v, w] = [vectors[p][k], vectors[q][k]];
    vectors[p][k] = c * v - s * w;
    vectors[q][k] = s * v + c * w;
  }
}

/** Eigenvalues and eigenvectors of a small symmetric matrix by rotations in turn (Jacobi 1846). The matrix is left as it is. */
export function symmetricEigen(matrix: readonly (readonly number[])[]): Eigen {
  const n = matrix.length;
  const work = matrix.map((row) => [...row]);
  const vectors = work.map((_, i) => work.map((__, j) => (i === j ? 1 : 0)));
  const whole = work.flat().reduce((sum, value) => sum + value * value, 0);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let beside = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) beside += work[p][q] ** 2;
    if (beside <= SMALL * whole) break;
    for (let p = 0; p < n; p++) {
      for (let q = p + 1; q < n; q++) if (work[p][q] !== 0) turn(work, vectors, p, q);
    }
  }
  const order = work.map((_, k) => k).sort((a, b) => work[b][b] - work[a][a]);
  return { values: order.map((k) => work[k][k]), vectors: order.map((k) => vectors[k]) };
}
