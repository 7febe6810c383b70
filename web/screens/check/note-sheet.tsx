import { type FormEvent, useState } from "react";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { TextArea } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";

/** A few words about this item or this child, for whoever reads the result. */
export function NoteSheet({
  open,
  about,
  onClose,
  onKeep,
}: {
  open: boolean;
  about: string;
  onClose: () => void;
  onKeep: (text: string) => void;
}) {
  const [text, setText] = useState("");
  useUnsaved(open && text.trim() !== "");
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) onKeep(text.trim());
    setText("");
    onClose();
  };
  return (
    <Sheet open={open} onClose={onClose} title={`Note on ${about}`}>
      <form onSubmit={keep} className="flex flex-col gap-3">
        <TextArea
          label="Note"
          bare
          rows={3}
          autoFocus
          maxLength={300}
          value={text}
          placeholder="What someone who was not there should know"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && !event.shiftKey && keep(event)}
        />
        <Button type="submit" shape="main">
          Save the note
        </Button>
      </form>
    </Sheet>
  );
}
