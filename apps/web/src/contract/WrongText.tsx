/** What is wrong with what was written last. */
export function WrongText({ text }: { readonly text: string | null }): React.JSX.Element | null {
  return text === null ? null : (
    <p className="wrong" role="alert">
      {text}
    </p>
  );
}
