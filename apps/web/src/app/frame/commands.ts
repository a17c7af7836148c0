import { holdsWords } from '@isomeros/core/model';

/** Something the command line can reach. */
export interface Command {
  readonly label: string;
  /** What it is: view, entity, path, operation, action. */
  readonly kind: string;
  /** What it does, in a sentence; it is looked through, too. */
  readonly help?: string;
  /** Set where the label is something that travels over HTTP. */
  readonly mono?: boolean;
  readonly run: () => void;
}

/**
 * The commands that hold all words that were typed, those first that begin or end with the text,
 * then the shorter ones.
 */
export function findCommands(commands: readonly Command[], typed: string, most: number): readonly Command[] {
  const [first = ''] = typed.toLowerCase().trim().split(/\s+/);
  if (first === '') return commands.slice(0, most);
  const holds = holdsWords(typed);
  const found = commands.filter(({ label, kind, help = '' }) => holds(`${label} ${kind} ${help}`));
  const fits = (label: string): boolean => label.startsWith(first) || label.endsWith(first);
  const rank = ({ label }: Command): number => (fits(label.toLowerCase()) ? 0 : 1) * 1_000 + label.length;
  return found.sort((a, b) => rank(a) - rank(b)).slice(0, most);
}
