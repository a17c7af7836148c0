export type { Head } from './head.js';
export { close, listen, portOf, type Asked, type RequestHandler, type SentAnswer } from './listener.js';
