import type { Ref } from 'react';

interface Props {
  readonly label: string;
  readonly accept?: string;
  readonly onFile: (file: File) => void;
  /** Whoever wants a file chosen clicks on it. */
  readonly ref: Ref<HTMLInputElement>;
}

/** Takes a file, the same one again, too; what it looks like is up to the button that opens it. */
export function FileInput({ label, accept, onFile, ref }: Props): React.JSX.Element {
  return (
    <input
      ref={ref}
      type="file"
      hidden
      aria-label={label}
      accept={accept}
      onChange={({ target }) => {
        const [chosen] = target.files ?? [];
        if (chosen !== undefined) onFile(chosen);
        target.value = '';
      }}
    />
  );
}
