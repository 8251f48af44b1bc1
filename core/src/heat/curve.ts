// The curve of a warming body and its least squares: T(t) = S − ΣD·e^(−t/τ).

export interface Points {
  readonly t: Float64Array;
  readonly y: Float64Array;
}

/** One curve with how badly it fits. */
export interface Solved {
  readonly steady: number;
  /** D of each time constant. */
  readonly parts: readonly number[];
  /** s */
  readonly taus: readonly number[];
  /** Sum of squared residuals. */
  readonly squares: number;
}

/** τ is looked for from so many spacings to so many lengths of the record. */
const SHORTEST = 0.5;
const LONGEST = 30;
const GRID = 28;
const MOST_ROUNDS = 40;

export function limitsOf({ t }: Points): readonly [number, number] {
  const length = (t[t.length - 1] as number) - (t[0] as number);
  return [Math.max((SHORTEST * length) / (t.length - 1), 1e-9), LONGEST * length];
}

/** Solve a small symmetric system in place, with pivots. @returns null where it has no one solution */
function solved(matrix: number[][], right: number[]): number[] | null {
  const n = right.length;
  const m = matrix.map((row, at) => [...row, right[at] as number]);
  for (let i = 0; i < n; i += 1) {
    let pivot = i;
    for (let row = i + 1; row < n; row += 1) if (Math.abs(m[row]?.[i] ?? 0) > Math.abs(m[pivot]?.[i] ?? 0)) pivot = row;
    const top = m[pivot] as number[];
    m[pivot] = m[i] as number[];
    m[i] = top;
    const lead = top[i] as number;
    if (!(Math.abs(lead) > 1e-13)) return null;
    for (let row = 0; row < n; row += 1) {
      if (row === i) continue;
      const own = m[row] as number[];
      const factor = (own[i] as number) / lead;
      for (let at = i; at <= n; at += 1) own[at] = (own[at] as number) - factor * (top[at] as number);
    }
  }
  return m.map((row, at) => (row[n] as number) / (row[at] as number));
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at += 1) sum += (a[at] as number) * (b[at] as number);
  return sum;
}

/**
 * The best curves over a grid of time constants: the linear parts are solved for each (G. H. Golub, V. Pereyra,
 * SIAM J. Numer. Anal. 10 (1973)). @returns a start for {@link refined}; null where none can be solved
 */
export function onGrid(points: Points, constants: 1 | 2): Solved | null {
  const { t, y } = points;
  const [shortest, longest] = limitsOf(points);
  const ratio = Math.log(longest / shortest) / (GRID - 1);
  const taus = Array.from({ length: GRID }, (_, at) => shortest * Math.exp(ratio * at));
  const decays = taus.map((tau) => t.map((time) => Math.exp(-time / tau)));
  const shift = y[y.length - 1] as number;
  const target = y.map((value) => value - shift);
  const one = new Float64Array(t.length).fill(1);
  const own = dot(target, target);
  const sums = decays.map((decay) => dot(decay, one));
  const onto = decays.map((decay) => dot(decay, target));
  const total = dot(target, one);
  const products = decays.map((a) => decays.map((b) => dot(a, b)));
  let best: Solved | null = null;
  const attempt = (which: readonly number[]) => {
    const matrix = [
      [t.length, ...which.map((at) => sums[at] as number)],
      ...which.map((a) => [sums[a] as number, ...which.map((b) => products[a]?.[b] as number)]),
    ];
    const right = [total, ...which.map((at) => onto[at] as number)];
    const found = solved(matrix, right);
    if (!found) return;
    const squares = Math.max(0, own - found.reduce((sum, value, at) => sum + value * (right[at] as number), 0));
    if (best && squares >= best.squares) return;
    best = {
      steady: shift + (found[0] as number),
      parts: found.slice(1).map((part) => -part),
      taus: which.map((at) => taus[at] as number),
      squares,
    };
  };
  for (let long = 0; long < GRID; long += 1) {
    if (constants === 1) attempt([long]);
    else for (let short = 0; short < long - 1; short += 1) attempt([long, short]);
  }
  return best;
}

/** Residuals' squares of a curve, and with `jacobian` the normal equations of a step from it. */
function evaluate({ t, y }: Points, steady: number, parts: readonly number[], logs: readonly number[], free: boolean) {
  const n = parts.length;
  const size = 2 * n + (free ? 1 : 0);
  const normal = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const gradient = new Array<number>(size).fill(0);
  const row = new Array<number>(size).fill(0);
  const rates = logs.map((log) => Math.exp(-log));
  let squares = 0;
  for (let at = 0; at < t.length; at += 1) {
    const time = t[at] as number;
    let curve = steady;
    for (let which = 0; which < n; which += 1) {
      const turn = time * (rates[which] as number);
      const decay = Math.exp(-turn);
      const part = parts[which] as number;
      curve -= part * decay;
      row[2 * which] = -decay;
      row[2 * which + 1] = -part * decay * turn;
    }
    if (free) row[size - 1] = 1;
    const residual = (y[at] as number) - curve;
    squares += residual * residual;
    for (let a = 0; a < size; a += 1) {
      const value = row[a] as number;
      gradient[a] = (gradient[a] as number) + value * residual;
      const own = normal[a] as number[];
      for (let b = 0; b <= a; b += 1) own[b] = (own[b] as number) + value * (row[b] as number);
    }
  }
  for (let a = 0; a < size; a += 1)
    for (let b = a + 1; b < size; b += 1) (normal[a] as number[])[b] = normal[b]?.[a] as number;
  return { squares, normal, gradient };
}

/**
 * The curve of least squares near a start. D. W. Marquardt, J. SIAM 11 (1963).
 * @param steady held at this value; its own where null
 */
export function refined(points: Points, start: Solved, steady: number | null): Solved {
  const [shortest, longest] = limitsOf(points);
  const clamp = (log: number) => Math.min(Math.log(longest), Math.max(Math.log(shortest), log));
  const free = steady === null;
  let level = steady ?? start.steady;
  let parts = [...start.parts];
  let logs = start.taus.map((tau) => clamp(Math.log(tau)));
  let now = evaluate(points, level, parts, logs, free);
  let damping = 1e-3;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const held = damping;
    const matrix = now.normal.map((row, a) => row.map((value, b) => (a === b ? value * (1 + held) + 1e-12 : value)));
    const step = solved(matrix, now.gradient);
    if (!step) break;
    const nextParts = parts.map((part, at) => part + (step[2 * at] as number));
    const nextLogs = logs.map((log, at) => clamp(log + Math.max(-1, Math.min(1, step[2 * at + 1] as number))));
    const nextLevel = free ? level + (step[step.length - 1] as number) : level;
    const next = evaluate(points, nextLevel, nextParts, nextLogs, free);
    if (next.squares < now.squares) {
      const gain = now.squares - next.squares;
      parts = nextParts;
      logs = nextLogs;
      level = nextLevel;
      now = next;
      damping = Math.max(1e-9, damping / 8);
      if (gain < 1e-7 * now.squares) break;
    } else {
      damping *= 6;
      if (damping > 1e6) break;
    }
  }
  return { steady: level, parts, taus: logs.map(Math.exp), squares: now.squares };
}
