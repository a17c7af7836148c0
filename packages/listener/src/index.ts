export type { Head } from './head.js';
export { close, listen, portOf, type RequestHead, type RequestHandler, type SentAnswer } from './listener.js';
