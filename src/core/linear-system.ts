/** Solves a small symmetric system in place by elimination with pivots; null where it has no answer. */
export function solveLinear(matrix: number[][], right: number[]): number[] | null {
  const size = right.length;
  const rows = matrix.map((row, index) => [...row, right[index]]);
  for (let pivot = 0; pivot < size; pivot++) {
    let best = pivot;
    for (let row = pivot + 1; row < size; row++) {
      if (Math.abs(rows[row][pivot]) > Math.abs(rows[best][pivot])) best = row;
    }
    if (Math.abs(rows[best][pivot]) < 1e-12) return null;
    [rows[pivot], rows[best]] = [rows[best], rows[pivot]];
    for (let row = 0; row < size; row++) {
      if (row === pivot) continue;
      const factor = rows[row][pivot] / rows[pivot][pivot];
      for (let column = pivot; column <= size; column++) rows[row][column] -= factor * rows[pivot][column];
    }
  }
  return rows.map((row, index) => row[size] / row[index]);
}
