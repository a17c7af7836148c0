export type { Head } from './head.js';
export { close, listen, portOf, type RequestHandler, type SentAnswer } from './listener.js';
