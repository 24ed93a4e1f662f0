/** A fault that people can do something about: printed as a sentence, without a stack. */
export class PlainFault extends Error {
  override readonly name = 'PlainFault';
}

export const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Runs a script's work; a fault ends it with a sentence and status 1. */
export function runScript(work: () => Promise<void>): void {
  work().catch((error: unknown) => {
    process.stderr.write(
      error instanceof PlainFault
        ? `\n${error.message}\n`
        : `\n${error instanceof Error ? error.stack : String(error)}\n`,
    );
    process.exit(1);
  });
}
