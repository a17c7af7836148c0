/** Addresses of the version before, which lead to the new ones for this version. */
const MOVED: readonly (readonly [before: RegExp, now: string])[] = [
  [/^(\/api\/designs\/[^/?]+)\/bring-back(?=$|\?)/, '$1/restore'],
  [/^(\/api\/mocks\/[^/?]+)\/trouble(?=$|\?)/, '$1/faults'],
  [/^(\/api\/mocks\/[^/?]+)\/seeding(?=$|\?)/, '$1/seed-plan'],
  [/^(\/api\/mocks\/[^/?]+)\/kinds(?=$|\?)/, '$1/record-types'],
];

/** Where an address of the version before is now; `null` where it is none. */
export function newAddress(url: string): string | null {
  const moved = MOVED.find(([before]) => before.test(url));
  return moved === undefined ? null : url.replace(moved[0], moved[1]);
}
