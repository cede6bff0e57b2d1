import type { ReactNode } from "react";

/** A button that asks for one file. The same file may be chosen again. */
export function FilePick({
  accept,
  onFile,
  className = "btn",
  children,
}: {
  accept: string;
  onFile: (file: File) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <label className={`cursor-pointer ${className}`}>
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
