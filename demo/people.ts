import { type Temper, tempers } from "#core/readers";

export interface DemoChild {
  readonly name: string;
  readonly temper: Temper;
  /** How quickly teaching sticks, 0 to 1. */
  readonly pace: number;
  readonly note?: string;
  /** Weeks (from 0) before which the child was not here. */
  readonly from?: number;
  /** Weeks in which the child was away. */
  readonly away?: readonly number[];
}

const { steady, forgetful, guesser, slowAndRight, lookAlikes, quiet, weakBlender } = tempers;
const softSpoken: Temper = { ...steady, ownWay: 0.3 };

/** Year 1. All names are made up. */
export const kiln: readonly DemoChild[] = [
  { name: "Alba T.", temper: steady, pace: 0.9 },
  { name: "Bram O.", temper: lookAlikes, pace: 0.5, note: "glasses are due in December; show large cards" },
  { name: "Cleo W.", temper: steady, pace: 0.75, away: [2] },
  { name: "Dario F.", temper: guesser, pace: 0.45 },
  { name: "Edda L.", temper: slowAndRight, pace: 0.55 },
  { name: "Fitz R.", temper: forgetful, pace: 0.5, away: [3, 4] },
  { name: "Gwen A.", temper: steady, pace: 0.95 },
  {
    name: "Hari S.",
    temper: quiet,
    pace: 0.4,
    note: "new to English since October; speaks more when no one watches",
    from: 3,
  },
  { name: "Ines K.", temper: steady, pace: 0.8 },
  { name: "Jory P.", temper: softSpoken, pace: 0.7 },
  { name: "Kezia D.", temper: steady, pace: 0.85 },
  { name: "Linus B.", temper: lookAlikes, pace: 0.55 },
  { name: "Mabel C.", temper: weakBlender, pace: 0.5 },
  { name: "Nico V.", temper: steady, pace: 0.7, away: [5] },
  { name: "Oona H.", temper: slowAndRight, pace: 0.65 },
  { name: "Perry J.", temper: forgetful, pace: 0.4 },
  { name: "Quin E.", temper: steady, pace: 0.9 },
  { name: "Rosa M.", temper: quiet, pace: 0.6 },
  { name: "Sunil G.", temper: steady, pace: 0.85 },
  { name: "Tilda N.", temper: steady, pace: 0.75 },
  { name: "Ugo Z.", temper: guesser, pace: 0.6, away: [1] },
  { name: "Vera I.", temper: steady, pace: 0.8 },
  { name: "Wilf Y.", temper: forgetful, pace: 0.55 },
  { name: "Yara Q.", temper: steady, pace: 0.7 },
];

/** Year 2. */
export const towpath: readonly DemoChild[] = [
  { name: "Amos D.", temper: forgetful, pace: 0.45 },
  { name: "Betsy R.", temper: steady, pace: 0.9 },
  { name: "Caleb N.", temper: weakBlender, pace: 0.6 },
  { name: "Dilys M.", temper: steady, pace: 0.85, away: [4] },
  { name: "Eben S.", temper: guesser, pace: 0.5 },
  { name: "Flora J.", temper: steady, pace: 1, note: "ready to leave the group when the last check holds" },
  { name: "Gil H.", temper: lookAlikes, pace: 0.55 },
  { name: "Hope C.", temper: steady, pace: 0.8 },
  { name: "Ivo P.", temper: steady, pace: 0.75 },
  { name: "Juno L.", temper: quiet, pace: 0.5 },
  { name: "Kit A.", temper: steady, pace: 0.88 },
  { name: "Lark E.", temper: softSpoken, pace: 0.7 },
  { name: "Milo B.", temper: forgetful, pace: 0.5, away: [2, 3] },
  { name: "Nell T.", temper: steady, pace: 0.82 },
  { name: "Otis F.", temper: slowAndRight, pace: 0.5 },
  { name: "Pia W.", temper: steady, pace: 0.78 },
  { name: "Ravi K.", temper: steady, pace: 0.9 },
  { name: "Seth G.", temper: guesser, pace: 0.42 },
  { name: "Thea O.", temper: steady, pace: 0.8, away: [6] },
  { name: "Una V.", temper: lookAlikes, pace: 0.65 },
  { name: "Vito Y.", temper: steady, pace: 0.7, note: "joined us this week; not checked yet", from: 8 },
  { name: "Wren I.", temper: steady, pace: 0.86 },
  { name: "Xanthe U.", temper: quiet, pace: 0.6, away: [1] },
  { name: "Zeb Q.", temper: forgetful, pace: 0.58 },
];

export const adults = {
  lead: "Mrs Quill",
  kilnTeacher: "Ms Harrow",
  towpathTeacher: "Mr Tolley",
  assistants: ["Jo P.", "Wyn D."],
  observer: "Dr Sedge",
} as const;
