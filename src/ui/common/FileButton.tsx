'use client';
import { useRef } from 'react';
import { Action } from './Action';

/** A button that asks for a file; the same file can be given again. */
export function FileButton({
  label,
  accept,
  testId,
  onFile,
  children,
}: {
  readonly label: string;
  readonly accept: string;
  readonly testId: string;
  readonly onFile: (file: File) => void;
  readonly children: string;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Action small onClick={() => input.current?.click()}>
        {children}
      </Action>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        data-testid={testId}
        onChange={(e) => {
          const [file] = e.currentTarget.files ?? [];
          if (file) onFile(file);
          e.currentTarget.value = '';
        }}
      />
    </>
  );
}
