import { Upload } from "lucide-react";
import { useRef } from "react";

interface Props {
  /** What is on the button. */
  words: string;
  /** What the field is called. */
  name: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button by which a file of this computer is chosen; the same one can be chosen again. */
export function OpenFile({ words, name, accept, onFile }: Props) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="btn btn-sm" onClick={() => field.current?.click()}>
        <Upload size={15} aria-hidden /> {words}
      </button>
      <input
        ref={field}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={name}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) onFile(chosen);
        }}
      />
    </>
  );
}
