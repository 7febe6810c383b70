import { heardIn, kindNames } from "#core/ledger";
import { ipa, showGrapheme, splitGpc } from "#core/phonics";
import { dice, fourChoices, holds, isWordItem, readWordItem, shuffled, wordItem } from "#core/words";
import type { Kind, Pad, SheetChoice } from "./kind.ts";
import { nothingTold } from "./kind.ts";

interface PaperSetup {
  /** The choices of a sheet, by item. */
  readonly sheet: Readonly<Record<string, readonly SheetChoice[]>>;
  /** Which of the two orders of choices a child's sheet has, so that neighbours cannot copy. */
  readonly version: "A" | "B";
}

const pad: Pad = [
  { outcome: "right", name: "Right" },
  { outcome: "other", name: "Another" },
  { outcome: "reversed", name: "Turned round" },
  { outcome: "wrong", name: "Another choice", typed: true },
  { outcome: "none", name: "Blank" },
];

/** The four choices of an item in the order in which this child's sheet has them; none for an item that has no sheet. */
export function choicesOnSheet(item: string, { sheet, version }: PaperSetup): readonly SheetChoice[] {
  const choices = sheet[item] ?? [];
  if (version === "A") return choices;
  const mixed = shuffled(choices, dice(item.length * 31 + (item.codePointAt(0) ?? 0)));
  return mixed.every((choice, at) => choice === choices[at]) ? [...choices].reverse() : mixed;
}

/** On paper, for a group: the adult says a word, each child rings it among four. An item is the spoken word. */
export const paper: Kind<"paper", unknown, PaperSetup> = {
  id: "paper",
  name: kindNames.paper,
  about: "You read out a word, each child rings it among four. The choice tells what was confused.",
  begins: { scope: "all", most: 12, strategy: "inOrder", stopAfter: 0 },
  shared: true,
  keeps: (drawn) => ({ sheet: drawn?.sheet ?? {}, version: "A" }),
  picks: null,
  way: "sheet",
  seconds: 20,
  order: "inOrder",
  fits: isWordItem,
  draw: ({ section, lexicon, taught, recent, seed, secure }) => {
    const known = new Set(taught);
    const focus =
      section.scope === "recent" ? recent : section.scope === "due" ? taught.filter((gpc) => !secure.has(gpc)) : [];
    const wanted = { lexicon, known, band: 4, syllables: 1, count: section.most, seed };
    const aimed = focus.flatMap((target, at) => fourChoices({ ...wanted, target, count: 2, seed: seed + at }));
    const found = [...aimed, ...fourChoices({ ...wanted, count: section.most * 3 })];
    const items = new Map<string, readonly SheetChoice[]>();
    const used = new Map<string, number>();
    // The right one stands at each of the four places as often as at any other, in no order that can be seen.
    const places = shuffled([...Array(section.most).keys()], dice(seed)).map((at) => at % 4);
    for (const { spoken, choices } of found) {
      const item = wordItem(spoken);
      const target =
        spoken.units.find((unit) => focus.includes(unit.gpc))?.gpc ??
        focus.find((gpc) => holds(spoken.units, gpc)) ??
        spoken.text;
      if (items.size === section.most || items.has(item) || (used.get(target) ?? 0) >= 2) continue;
      used.set(target, (used.get(target) ?? 0) + 1);
      const shown = choices.map(({ word, confusion }) => ({
        text: word.text,
        from: confusion?.from,
        to: confusion?.to,
      }));
      const wrong = shown.filter((choice) => choice.from !== undefined);
      const right = shown.filter((choice) => choice.from === undefined);
      const place = places[items.size] ?? 0;
      items.set(item, [...wrong.slice(0, place), ...right, ...wrong.slice(place)]);
    }
    return { items: [...items.keys()], sheet: Object.fromEntries(items) };
  },
  face: () => ({ show: "nothing" }),
  prompt: (item) => ({ say: readWordItem(item).text, expects: readWordItem(item).text }),
  pad: () => pad,
  likely: (item, setup) =>
    choicesOnSheet(item, setup).map(({ text, from }) => ({
      heard: text,
      shows: text,
      hint: from === undefined ? "right" : "",
      outcome: from === undefined ? "right" : "wrong",
    })),
  tags: () => [{ tag: "doubled", name: "Two were ringed" }],
  show: (item) => readWordItem(item).text,
  showHeard: (heard) => heard,
  tell: (answer, { setup }) => {
    const { text, units } = readWordItem(answer.item);
    if (answer.outcome === "none") return { ...nothingTold, units, says: [`${text}: left blank.`] };
    if (answer.tags.includes("doubled")) return { ...nothingTold, units, says: [`${text}: two were ringed.`] };
    const heard = heardIn(answer);
    const chosen = (setup.sheet[answer.item] ?? []).find((choice) => choice.text === heard);
    if (!heard || !chosen?.from || !chosen.to) return { ...nothingTold, units };
    const [from, to] = [splitGpc(chosen.from), splitGpc(chosen.to)];
    const failed = units.findIndex((unit) => unit.gpc === chosen.from);
    return {
      units,
      failed: failed < 0 ? [] : [failed],
      says: [
        `${text}: ringed ${heard}, ${showGrapheme(to.grapheme)} ${ipa(to.sound)} for ${showGrapheme(from.grapheme)} ${ipa(from.sound)}.`,
      ],
      mixed: [{ asked: from.sound, given: to.sound, of: "sound" }],
    };
  },
};
