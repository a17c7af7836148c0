import { script } from '../shell/script.js';
import type { PublicationFormat } from './format.js';

export const SHELL: PublicationFormat = {
  title: 'curl, shell script',
  mediaType: 'application/x-sh',
  write: ({ contract, calls }) => script(contract, calls()),
  cannotSay: ({ calls }) =>
    calls().without.map((id) => `The seed records have nothing on which ${id} succeeds.`),
};
