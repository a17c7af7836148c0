interface Props {
  readonly problems: readonly { readonly line: number; readonly message: string }[];
  /** Why the server did not take it. */
  readonly refused: string | null;
}

/** What does not fit in lines that were written, and where. */
export function LineProblems({ problems, refused }: Props): React.JSX.Element {
  return (
    <>
      {problems.length > 0 && (
        <ul className="wrong" role="alert">
          {problems.map(({ line, message }) => (
            <li key={`${line} ${message}`}>
              Line {line}: {message}
            </li>
          ))}
        </ul>
      )}
      {refused !== null && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
    </>
  );
}
