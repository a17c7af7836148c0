import { script } from '../shell/script.js';
import type { PublicationFormat } from './format.js';

export const SHELL: PublicationFormat = {
  title: 'curl, shell script',
  mediaType: 'application/x-sh',
  write: ({ contract, calls }) => {
    const found = calls();
    return {
      text: script(contract, found),
      cannotSay: found.without.map((id) => `The seed records have nothing on which ${id} succeeds.`),
    };
  },
};
