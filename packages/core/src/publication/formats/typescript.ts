import { declarations } from '../typescript/declarations.js';
import type { PublicationFormat } from './format.js';

export const TYPESCRIPT: PublicationFormat = {
  title: 'TypeScript declarations',
  mediaType: 'text/plain; charset=utf-8',
  write: ({ contract }) => declarations(contract),
  cannotSay: () => ['Bounds, patterns and formats of values are not types.'],
};
