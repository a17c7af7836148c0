import type { Method, Verb } from './operation.js';

/** The method of each operation. */
export const METHODS: Readonly<Record<Verb, Method>> = {
  entry: 'GET',
  list: 'GET',
  read: 'GET',
  create: 'POST',
  replace: 'PUT',
  change: 'PATCH',
  remove: 'DELETE',
  attach: 'PUT',
  detach: 'DELETE',
  transition: 'POST',
  custom: 'POST',
};
