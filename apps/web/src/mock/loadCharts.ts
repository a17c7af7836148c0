import type { LoadSecond } from '@isomeros/api';

/** One line of a chart; `null` where nothing is known of a moment. */
export interface ChartLine {
  readonly name: string;
  /** The name of a custom property of the theme. */
  readonly color: string;
  readonly values: readonly (readonly [at: number, value: number | null])[];
}

/** Lines over time with one axis. */
export interface Chart {
  readonly title: string;
  readonly unit: string;
  /** Whether lines stand on one another. */
  readonly stacked: boolean;
  readonly lines: readonly ChartLine[];
}

const CLASSES = ['cut', '1xx', '2xx', '3xx', '4xx', '5xx'] as const;
const COLORS: Readonly<Record<(typeof CLASSES)[number], string>> = {
  cut: '--ink',
  '1xx': '--quiet',
  '2xx': '--accent',
  '3xx': '--strong-rule',
  '4xx': '--mark',
  '5xx': '--wrong',
};
const MIB = 1_048_576;

/** However little there is, so many seconds are shown. */
const SHORTEST = 60;

/** The charts of what was answered until `now`, in milliseconds since 1970. */
export function loadCharts(seconds: readonly LoadSecond[], now: number): readonly Chart[] {
  const last = Math.floor(now / 1_000) - 1;
  const first = seconds[0] === undefined ? last : Date.parse(seconds[0].at) / 1_000;
  const length = Math.max(SHORTEST, last - first + 1);
  const known = new Map(seconds.map((second) => [Date.parse(second.at) / 1_000, second]));
  const moments = Array.from({ length }, (_, index) => last - length + 1 + index);
  const line = (
    name: string,
    color: string,
    value: (second: LoadSecond | undefined) => number | null,
  ): ChartLine => ({
    name,
    color,
    values: moments.map((moment) => [moment * 1_000, value(known.get(moment))]),
  });
  const used = CLASSES.filter((_, place) => seconds.some(({ answered }) => (answered[place] ?? 0) > 0));
  return [
    {
      title: 'Answers by status',
      unit: 'a second',
      stacked: true,
      lines: used.map((name) =>
        line(name, COLORS[name], (second) => second?.answered[CLASSES.indexOf(name)] ?? 0),
      ),
    },
    {
      title: 'Latency',
      unit: 'ms',
      stacked: false,
      lines: [
        line('half within', '--accent', (second) => second?.p50 ?? null),
        line('95 % within', '--mark', (second) => second?.p95 ?? null),
        line('99 % within', '--wrong', (second) => second?.p99 ?? null),
      ],
    },
    {
      title: 'Memory of the server',
      unit: 'MiB',
      stacked: false,
      lines: [
        line('heap', '--accent', (second) =>
          second === undefined ? null : Math.round((second.memory / MIB) * 10) / 10,
        ),
      ],
    },
    {
      title: 'Records',
      unit: '',
      stacked: false,
      lines: [line('records', '--accent', (second) => second?.records ?? null)],
    },
  ];
}
