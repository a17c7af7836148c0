import { exampleRequest } from '@isomeros/core/engine';
import { TestMock } from './mock.js';

/** Operations of a mock of a model, fresh for each, that do not answer a request that fits with success. */
export function unanswered(text: string): readonly string[] {
  const { service } = TestMock.of(text);
  return service.contract.operations.flatMap((operation) => {
    const mock = TestMock.of(text);
    const request = exampleRequest(mock.service, mock.dataset, operation, mock.now);
    // There may be nothing to be read or removed, such as what nobody owns yet.
    if (request === null) return operation.verb === 'create' ? [operation.id] : [];
    const { status } = mock.exchange(request);
    return status >= 200 && status < 300 ? [] : [`${operation.id}: ${status}`];
  });
}
