/** The median of so many runs in milliseconds, after as many that only warm up. */
export function median(runs: number, work: () => void): number {
  for (let run = 0; run < runs; run++) work();
  const times = Array.from({ length: runs }, () => {
    const started = performance.now();
    work();
    return performance.now() - started;
  }).sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)] ?? NaN;
}

/** The exponent by which the time grows with the size: the slope of the line nearest to all points, both logarithmic. */
export function growthExponent(points: readonly (readonly [size: number, time: number])[]): number {
  const logs = points.map(([size, time]) => [Math.log(size), Math.log(time)] as const);
  const mean = (values: readonly number[]): number =>
    values.reduce((sum, value) => sum + value, 0) / values.length;
  const [x, y] = [mean(logs.map(([size]) => size)), mean(logs.map(([, time]) => time))];
  const covariance = mean(logs.map(([size, time]) => (size - x) * (time - y)));
  return covariance / mean(logs.map(([size]) => (size - x) ** 2));
}
