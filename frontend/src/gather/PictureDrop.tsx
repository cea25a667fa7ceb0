import { createContext, type ReactNode, useContext, useEffect } from "react";
import { useDropzone } from "react-dropzone";
import { useNavigate } from "react-router";

import { useAddPicture } from "../api/captures";
import { asProblem } from "../api/client";
import { useNotices } from "../app/notices";

const LIST_FILE = /\.(txt|csv|tsv|xlsx|md)$/i;
const Browse = createContext<(() => void) | null>(null);

/** Opens the system's window for choosing pictures. */
export function useBrowseForPicture(): () => void {
  const browse = useContext(Browse);
  if (!browse) throw new Error("useBrowseForPicture needs a PictureDrop around it");
  return browse;
}

/** Takes in pictures dropped anywhere in the window, pasted, or browsed for; and lists of pages. */
export function PictureDrop({ children }: { children: ReactNode }) {
  const { mutateAsync: addPicture } = useAddPicture();
  const show = useNotices((state) => state.show);
  const navigate = useNavigate();

  const takeIn = async (files: File[]) => {
    for (const file of files) {
      if (LIST_FILE.test(file.name)) {
        await navigate("/sweeps/new", { state: { file } });
        continue;
      }
      try {
        await addPicture({ file, name: file.name });
        show({ tone: "info", text: `${file.name} is on its way to the shelf.` });
      } catch (error) {
        const { sentence, hint } = asProblem(error);
        show({ tone: "error", text: `${file.name}: ${sentence}`, hint });
      }
    }
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (files) => void takeIn(files),
    noClick: true,
    noPaste: true, // pasting works anywhere in the window, not only inside; see below
    noKeyboard: true,
    useFsAccessApi: false,
  });

  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void takeIn(files);
    };
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  });

  return (
    <Browse.Provider value={open}>
      <div {...getRootProps({ className: "relative h-full", role: "presentation" })}>
        <input {...getInputProps({ "aria-label": "Choose pictures", style: { display: "none" } })} />
        {children}
        {isDragActive && (
          <div className="pointer-events-none absolute inset-0 z-50 grid place-items-center border-4 border-dashed border-accent bg-base-100/85">
            <p className="text-2xl font-semibold">Let go: a picture goes to the shelf, a list of pages is read</p>
          </div>
        )}
      </div>
    </Browse.Provider>
  );
}
