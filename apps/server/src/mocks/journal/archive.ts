import type { Exchange } from '@isomeros/api';
import { harEntry, harFrame } from '@isomeros/core/engine';
import { API_DESCRIPTION } from '../../http/route.js';

/** An archive of exchanges (HAR 1.2), a part at a time. `originOf`: where what is served under a name is reached. */
export async function* archiveText(
  exchanges: AsyncIterable<Exchange>,
  originOf: (arrangement: string) => string,
): AsyncGenerator<string> {
  const [before, after] = harFrame(API_DESCRIPTION.info.version);
  yield before;
  let separator = '';
  for await (const exchange of exchanges) {
    yield `${separator}${JSON.stringify(harEntry(exchange, originOf(exchange.arrangement)))}`;
    separator = ',';
  }
  yield after;
}
