/** A record as the mock answers it, its links aside. */
export interface Item {
  readonly id: number;
  name: string;
  size: number;
  kind: string;
}

export const MODEL = `design "Measured"

entity Item
  name: text(1..40), required
  size: integer(0..1000000), required
  kind: choice(a, b, c, d), required
`;

const KINDS = ['a', 'b', 'c', 'd'];

export const records = (count: number): Item[] =>
  Array.from({ length: count }, (_, index) => ({
    id: index + 1,
    name: `Item ${index + 1}`,
    size: (index * 7919) % 1_000_001,
    kind: KINDS[index % KINDS.length] ?? 'a',
  }));
