/** Whether a request can change records, so that it must be handled against a draft. */
export const isWrite = (method: string): boolean =>
  method === 'POST' || method === 'PUT' || method === 'PATCH' || method === 'DELETE';
