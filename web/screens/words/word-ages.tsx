import { type OwnWordAge, removeWordAge, sayWordAge } from "#contract";
import { type KnownBy, keyOf, knownBys } from "#core/words";
import { call } from "#web/device/api.ts";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { download } from "#web/parts/download.ts";
import { Choice } from "#web/parts/field.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { written } from "./written.ts";

const inWords = (age: KnownBy) => (age === 12 ? "later" : `by ${age}`);
const AS_LISTED = "list";

const put = ({ id, text, knownBy }: Omit<OwnWordAge, "savedAt">) =>
  written(() => call(sayWordAge, { params: { id }, body: { text, knownBy } }));

async function remove(own: OwnWordAge): Promise<void> {
  if (await written(() => call(removeWordAge, { params: { id: own.id } })))
    toastWithUndo(`${own.text} is known from the age that the word list says.`, () => put(own));
}

/** From which age children here know a word: as the list says, or as the school does. */
export function WordAge({ word, ground }: { readonly word: string; readonly ground: SchoolWords }) {
  const own = ground.ages.find(({ text }) => keyOf(text) === keyOf(word));
  const age = ground.lexicon.find(word)[0]?.knownBy ?? 12;
  const choose = async (value: string) => {
    if (value === AS_LISTED) {
      if (own) await remove(own);
      return;
    }
    const knownBy = Number(value) as KnownBy;
    if (await put({ id: own?.id ?? newId(), text: word, knownBy }))
      // By keys one comes past others: what was said of them is said no more.
      toast(`Lists and sessions take ${word} as known ${inWords(knownBy)}, in your school.`, { id: "age of a word" });
  };
  return (
    <div className="max-w-56">
      <Choice
        bare
        label={`Children here know ${word}`}
        value={own ? String(own.knownBy) : AS_LISTED}
        onChange={(event) => void choose(event.target.value)}
      >
        <option value={AS_LISTED}>{own ? "as the word list says" : `${inWords(age)}, says the word list`}</option>
        {knownBys.map((one) => (
          <option key={one} value={one}>
            {inWords(one)}, in our school
          </option>
        ))}
      </Choice>
    </div>
  );
}

/** All words whose age the school has said itself. */
export function OwnAges({ ground: { ages } }: { readonly ground: SchoolWords }) {
  if (ages.length === 0) return null;
  return (
    <section className="rounded-lg border border-line bg-sheet">
      <header className="flex items-center justify-between border-b border-line px-4 py-2.5">
        <h2>From which age our children know a word</h2>
        <Button
          onClick={() =>
            download(
              "our-ages.txt",
              "text/plain",
              ages.map((one) => `${one.text}: ${inWords(one.knownBy)}\n`).join(""),
            )
          }
        >
          Save as text
        </Button>
      </header>
      <ul>
        {ages.map((one) => (
          <li
            key={one.id}
            className="flex items-center justify-between gap-4 border-b border-line px-4 py-2 last:border-b-0"
          >
            <span className="font-child text-xl">{one.text}</span>
            <span className="grow text-soft">{inWords(one.knownBy)}</span>
            <Button onClick={() => void remove(one)} aria-label={`Take away the age of ${one.text}`}>
              As the list says
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
