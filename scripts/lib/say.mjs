import { endChildren } from './processes.mjs';
import { Stopped } from './stopping.mjs';
import { UserError } from './userError.mjs';

export { UserError };

/** One line to the person at the terminal. */
export const say = (text) => {
  process.stdout.write(`${text}\n`);
};

const warn = (text) => {
  process.stderr.write(`${text}\n`);
};

/** Runs a script's main function; what the person can do something about is printed, anything else is a bug and shown whole. */
export async function run(main) {
  try {
    process.exitCode = (await main()) ?? 0;
  } catch (error) {
    if (error instanceof Stopped) return;
    process.exitCode = 1;
    if (error instanceof UserError) warn(error.message);
    else if (error.path !== undefined && error.syscall !== undefined)
      warn(`${error.path} cannot be used (${error.code}). ISOMEROS_FOLDER names another folder.`);
    else throw error;
  } finally {
    await endChildren();
  }
}
