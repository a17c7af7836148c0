export { judgeResponse } from './response.js';
export type { Deviation, ReceivedResponse } from './response.js';
