import { derivingMeasured } from './deriving.js';

/** A line of the report, or undefined after the last. */
const say = (line: string | undefined): void => globalThis.postMessage(line);

globalThis.onmessage = ({ data }: MessageEvent<string>) => {
  for (const line of derivingMeasured(data)) say(line);
  say(undefined);
};
