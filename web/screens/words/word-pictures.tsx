import { useEffect, useState } from "react";
import { type OwnPicture, removePicture, savePicture } from "#contract";
import { keyOf } from "#core/words";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { usePictures } from "#web/device/own-pictures.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Fault } from "#web/parts/page.tsx";
import { Picture } from "#web/parts/picture.tsx";
import { loadPictures, smallPicture } from "#web/parts/pictures.ts";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { written } from "./written.ts";

async function remove({ id, text, image, madeBy }: OwnPicture): Promise<void> {
  if (!(await written(() => call(removePicture, { params: { id } })))) return;
  const [, content = ""] = image.split(",");
  toastWithUndo(`Your school's picture of ${text} is taken away.`, () =>
    written(() => call(savePicture, { params: { id }, body: { text, image: content, madeBy } })),
  );
}

/** The picture of a word, the one that ships or the school's own, and a way to another one. */
export function WordPicture({ word, shipped }: { word: string; shipped: Readonly<Record<string, string>> }) {
  const { pictures, own } = usePictures(shipped);
  const [open, setOpen] = useState(false);
  const picture = pictures[keyOf(word)];
  const mine = own.find(({ text }) => keyOf(text) === keyOf(word));
  useEffect(() => void (picture && loadPictures([picture])), [picture]);
  return (
    <div className="flex flex-wrap items-center gap-3">
      {picture ? <Picture of={`Picture of ${word}`} picture={picture} className="text-5xl leading-none" /> : "none"}
      {mine && <span className="text-sm text-soft">made by {mine.madeBy}</span>}
      <Button onClick={() => setOpen(true)}>{mine ? "Another picture" : "A picture of ours"}</Button>
      {mine && <Button onClick={() => void remove(mine)}>Take it away</Button>}
      {open && <PictureSheet word={word} mine={mine} onClose={() => setOpen(false)} />}
    </div>
  );
}

/** Puts in a picture of a word from a file, with who made it. */
function PictureSheet({ word, mine, onClose }: { word: string; mine: OwnPicture | undefined; onClose: () => void }) {
  const [image, setImage] = useState("");
  const [madeBy, setMadeBy] = useState(mine?.madeBy ?? "");
  const [problem, setProblem] = useState("");
  const [newPictureId] = useState(newId);
  const choose = async (file: File) => {
    setProblem("");
    setImage("");
    try {
      setImage(await smallPicture(file));
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  const save = async () => {
    try {
      await call(savePicture, { params: { id: mine?.id ?? newPictureId }, body: { text: word, image, madeBy } });
      await refreshAll();
      toast(`Saved. Cards and sheets show this picture of ${word} from now on.`);
      onClose();
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <Sheet open onClose={onClose} title={`A picture of ${word}`}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <p className="text-soft">
          It is kept small and in grey, as it comes out of a printer. What else is in the file, the place where a
          photo was taken for one, is left behind. Show no child's face.
        </p>
        <label className="flex flex-wrap items-center gap-2">
          <span className="text-sm font-semibold">File: PNG, JPEG or WebP</span>
          <input
            type="file"
            accept="image/png,image/jpeg,image/webp"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) void choose(file);
            }}
          />
        </label>
        {image && (
          <Picture
            of={`The new picture of ${word}`}
            picture={`data:image/jpeg;base64,${image}`}
            className="text-[8rem] leading-none grayscale"
          />
        )}
        <TextField
          label="Who made it"
          hint="Only pictures that your school may use: drawn here, or with a licence."
          value={madeBy}
          maxLength={80}
          required
          onChange={(event) => setMadeBy(event.target.value)}
        />
        <Fault>{problem}</Fault>
        <div className="flex justify-end gap-2 border-t border-line pt-3">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" shape="main" disabled={image === "" || madeBy.trim() === ""}>
            Save for our school
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

/** All pictures that the school put in. */
export function OwnPictures() {
  const { own } = usePictures(undefined);
  if (own.length === 0) return null;
  return (
    <section className="rounded-lg border border-line bg-sheet">
      <h2 className="border-b border-line px-4 py-2.5">Pictures of our school</h2>
      <ul className="grid gap-x-4 sm:grid-cols-2">
        {own.map((one) => (
          <li key={one.id} className="flex items-center gap-4 px-4 py-2">
            <Picture of={`Picture of ${one.text}`} picture={one.image} className="text-5xl leading-none" />
            <span className="grow">
              <span className="block font-child text-xl">{one.text}</span>
              <span className="block text-sm text-soft">made by {one.madeBy}</span>
            </span>
            <Button onClick={() => void remove(one)} aria-label={`Take away the picture of ${one.text}`}>
              Take away
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
