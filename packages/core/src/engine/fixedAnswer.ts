import type { FixedValue } from '../arrangement/index.js';
import { bareObject, type Json } from '../model/index.js';
import type { RequestContext } from './service.js';

/** The body of a fixed answer: JSON for an object, else the text itself. */
export function fixedAnswer(service: RequestContext, body: FixedValue): string {
  const value = valueNow(service, body);
  return typeof value === 'string' ? value : JSON.stringify(value);
}

function valueNow(service: RequestContext, value: FixedValue): Json {
  switch (value.kind) {
    case 'literal':
      return value.value;
    case 'now':
      return new Date(service.now).toISOString();
    case 'version':
      return service.contract.version;
    case 'list':
      return value.items.map((item) => valueNow(service, item));
    case 'object': {
      const object = bareObject();
      for (const member of value.members) object[member.name] = valueNow(service, member.value);
      return object;
    }
  }
}
