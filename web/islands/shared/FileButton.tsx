import type { ReactNode } from 'react';

interface Props {
  /** What stands on it, and names it. */
  readonly children: ReactNode;
  readonly accept: string;
  readonly onFile: (file: File) => void;
  /** A phone opens its camera at once. */
  readonly hasCamera?: boolean;
  readonly kind?: 'main' | 'quiet';
  readonly isDisabled?: boolean;
  readonly className?: string;
}

/** A button that has a file chosen. The same file can be chosen again: it may have changed. */
export function FileButton({ children, accept, onFile, hasCamera, kind, isDisabled, className = '' }: Props) {
  return (
    <label
      className={`button cursor-pointer has-focus-visible:outline-3 has-focus-visible:outline-verdigris ${className}`}
      data-kind={kind}
    >
      {children}
      <input
        type="file"
        accept={accept}
        capture={hasCamera ? 'environment' : undefined}
        className="sr-only"
        disabled={isDisabled}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
