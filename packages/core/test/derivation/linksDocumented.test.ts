import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { completeLinkLine, derive, printLinkLine, readLinkLine } from '@isomeros/core/derivation';
import { MAIN } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';
import { linkedBy, resourceAt } from '../support/ownLinks.js';
import { kestrelText } from '../support/samples.js';

const text = readFileSync(join(import.meta.dirname, '../../../../docs/links.md'), 'utf8');
const PATHS: Readonly<Record<string, string>> = {
  'On an item': '/bookings/{bookingId}',
  'At the entry, and on a list': '',
};
const MODEL = modelOf(kestrelText);
const CONTRACT = derive(MODEL, MAIN);

/** The lines of each table, with the heading above. */
const documented = text.split(/^## /m).flatMap((section) => {
  const [heading = ''] = section.split('\n');
  return [...section.matchAll(/^\| `([^`]+)` \|/gm)].map(([, line = '']) => [heading, line] as const);
});

describe('the lines of links that are documented', () => {
  test('are there for every place', () => {
    expect(new Set(documented.map(([heading]) => heading))).toEqual(new Set(Object.keys(PATHS)));
  });

  test.each(documented)('%s: %s', (heading, line) => {
    const path = PATHS[heading] ?? '';
    const resource = resourceAt(CONTRACT, path);
    const read = readLinkLine(MODEL, CONTRACT, resource, line);
    expect(read).toMatchObject({ ok: true });
    if (!read.ok) return;
    expect(printLinkLine(MODEL, CONTRACT, resource, read.link)).toBe(line);
    const { findings } = derive(MODEL, linkedBy(MODEL, [[path, line]]));
    expect(findings.filter(({ id }) => id === 'link.unfit')).toEqual([]);
  });
});

describe('a line that is being written goes on', () => {
  test.each([
    ['/bookings/{bookingId}', 'alt', 'alternate'],
    ['/bookings/{bookingId}', 'alternate ', 'alternate -> '],
    ['/bookings/{bookingId}', 'captain -> sai', 'captain -> sailing'],
    ['/bookings/{bookingId}', 'captain -> sailing.ma', 'captain -> sailing.master'],
    ['/bookings/{bookingId}', 'all -> listBook', 'all -> listBookings'],
    ['/bookings/{bookingId}', 'all -> listBookings wh', 'all -> listBookings where '],
    ['/bookings/{bookingId}', 'all -> listBookings where sta', 'all -> listBookings where state'],
    ['/bookings/{bookingId}', 'all -> listBookings where state ', 'all -> listBookings where state = '],
    [
      '/bookings/{bookingId}',
      'all -> listBookings where state = h',
      'all -> listBookings where state = held',
    ],
    ['/bookings/{bookingId}', 'x -> readRoute with route', 'x -> readRoute with routeNumber'],
    [
      '/bookings/{bookingId}',
      'x -> readRoute with routeNumber = self.sailing.ro',
      'x -> readRoute with routeNumber = self.sailing.route',
    ],
    [
      '/bookings/{bookingId}',
      'x -> "https://a.example/{sailing.dep',
      'x -> "https://a.example/{sailing.departsAt',
    ],
    ['/bookings/{bookingId}', 'x -> listBookings sort id d', 'x -> listBookings sort id desc'],
    ['', 'x -> listRoutes, si', 'x -> listRoutes, size '],
  ])('at %s, %s to %s', (path, written, expected) => {
    expect(completeLinkLine(MODEL, CONTRACT, resourceAt(CONTRACT, path), written)).toContain(expected);
  });

  test('with nothing at the entry that only a record has', () => {
    const entry = resourceAt(CONTRACT, '');
    expect(completeLinkLine(MODEL, CONTRACT, entry, 'x -> "https://a.example/{')).toEqual([]);
    expect(completeLinkLine(MODEL, CONTRACT, entry, 'x -> listRoutes wh')).toEqual([
      'x -> listRoutes where ',
    ]);
  });
});
