import type { Exchange, ExchangeSummary } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import type { NamedExample } from '@isomeros/core/arrangement';
import { ApiProblem } from '../http/problem.js';
import { exampleOfExchange } from './exampleOfExchange.js';
import { archiveText } from './journal/archive.js';
import type { ExchangeFilter } from './journal/exchangeFilter.js';
import { TooManyPinned } from './journal/journal.js';
import { originOf, type LoadedMock } from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import { servedText } from './served.js';

const isGone = (number: number): ApiProblem =>
  new ApiProblem('not-found', `The journal holds no exchange ${number}.`);

/** What can be asked of the journals of mocks. */
@Injectable()
export class ExchangesService {
  constructor(private readonly mocks: MockRegistry) {}

  page(id: string, before: number, limit: number, filter: ExchangeFilter): Promise<ExchangeSummary[]> {
    return this.mocks.find(id).journal.page(before, limit, filter);
  }

  async read(id: string, number: number): Promise<Exchange> {
    const exchange = await this.mocks.find(id).journal.get(number);
    if (exchange === undefined) throw isGone(number);
    return exchange;
  }

  /** Forgets all exchanges but those that are pinned. */
  async clear(id: string): Promise<void> {
    const mock = this.mocks.find(id);
    await mock.journal.clear();
    this.mocks.announce(mock);
  }

  /** Keeps an exchange, whatever goes. */
  async pin(id: string, number: number): Promise<void> {
    const mock = this.mocks.find(id);
    try {
      if (!(await mock.journal.pin(number))) throw isGone(number);
    } catch (error) {
      if (error instanceof TooManyPinned) throw new ApiProblem('conflict', error.message);
      throw error;
    }
    await this.tellAgain(mock, number);
  }

  async unpin(id: string, number: number): Promise<void> {
    const mock = this.mocks.find(id);
    await mock.journal.unpin(number);
    await this.tellAgain(mock, number);
  }

  /** Whoever looks on sees whether an exchange is pinned. */
  private async tellAgain(mock: LoadedMock, number: number): Promise<void> {
    const [exchange] = await mock.journal.page(number + 1, 1);
    if (exchange?.number === number)
      this.mocks.events.next({ kind: 'exchange', mock: mock.row.id, exchange });
  }

  /** An archive of exchanges (HAR 1.2), a part at a time. */
  archive(id: string, filter: ExchangeFilter): AsyncIterable<string> {
    const mock = this.mocks.find(id);
    return archiveText(mock.journal.all(filter), (arrangement) => originOf(mock, arrangement));
  }

  /** The request of an exchange with the records it needs, as they were before it. */
  example(id: string, number: number): NamedExample {
    const mock = this.mocks.find(id);
    const exchange = mock.journal.find(number);
    if (exchange === undefined) throw isGone(number);
    const endpoint = mock.endpoints.find(({ served }) => servedText(served) === exchange.arrangement);
    if (endpoint === undefined || exchange.isLean)
      throw new ApiProblem('conflict', 'The exchange is too old to make an example of.');
    const result = exampleOfExchange(endpoint.service, mock.records.dataset, exchange);
    if (!result.ok) throw new ApiProblem('conflict', result.why);
    return result.example;
  }
}
