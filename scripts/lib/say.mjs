/** One line to the person at the terminal. */
export const say = (text) => {
  process.stdout.write(`${text}\n`);
};

/** An end that the person can do something about: printed without a stack. */
export class Trouble extends Error {}

/** Runs a script's main function; trouble is printed, anything else is a bug and shown whole. */
export async function run(main) {
  try {
    process.exitCode = (await main()) ?? 0;
  } catch (error) {
    process.exitCode = 1;
    if (error instanceof Trouble) process.stderr.write(`${error.message}\n`);
    else throw error;
  }
}
