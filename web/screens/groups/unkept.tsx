import type { Unkept } from "#core/groups";

/** A sentence with the children's names in it. */
function withNames(text: string, children: readonly string[], name: (id: string) => string): string {
  return text.replace(/\{(\d)\}/g, (_, at: string) => name(children[Number(at)] ?? ""));
}

/** What was asked for and cannot be kept, with what would help. */
export function UnkeptLimits({ unkept, name }: { unkept: readonly Unkept[]; name: (id: string) => string }) {
  if (unkept.length === 0) return null;
  return (
    <ul
      className="mb-3 flex flex-col gap-1 rounded-lg border border-damson bg-damson-pale px-4 py-2"
      aria-label="What cannot be kept"
    >
      {unkept.map(({ limit, children, why, helps }) => (
        <li key={`${limit} ${children.join()}`}>
          {withNames(why, children, name)} {helps.map((help) => withNames(help, children, name)).join(" ")}
        </li>
      ))}
    </ul>
  );
}
