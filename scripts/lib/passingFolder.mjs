import { accessSync, chmodSync, constants, mkdtempSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const MEMORY = '/dev/shm';
const ROOM_BYTES = 4 * 1024 ** 3;

/** A folder for what need not outlive the machine: in memory where there is room, so that nobody waits for a disk. */
export function makePassingFolder(prefix) {
  const folder = mkdtempSync(join(memoryHasRoom() ? MEMORY : tmpdir(), prefix));
  // Others, as the user of PostgreSQL, reach what is theirs below it.
  chmodSync(folder, 0o711);
  return folder;
}

function memoryHasRoom() {
  try {
    accessSync(MEMORY, constants.W_OK);
    const { bavail, bsize } = statfsSync(MEMORY);
    return bavail * bsize >= ROOM_BYTES;
  } catch (error) {
    if (['ENOENT', 'EACCES', 'EROFS'].includes(error.code)) return false;
    throw error;
  }
}
