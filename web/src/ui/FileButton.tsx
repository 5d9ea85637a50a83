/** A press that opens a file; the same file may be opened twice. */

import type { ReactNode } from "react";

interface Props {
  children: ReactNode;
  accept: string;
  /** Asks for the camera where there is one. */
  camera?: boolean;
  className?: string;
  onFile: (file: File) => void;
}

export function FileButton({ children, accept, camera, className = "", onFile }: Props) {
  return (
    <label
      className={`pick inline-flex cursor-pointer items-center px-6 focus-within:outline-2 focus-within:outline-ink ${className}`}
    >
      {children}
      <input
        type="file"
        accept={accept}
        capture={camera ? "environment" : undefined}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}
