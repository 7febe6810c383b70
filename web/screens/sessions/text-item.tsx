import { Link } from "react-router";
import { listTexts } from "#contract";
import { useKept } from "#web/device/kept.ts";

/** A text of a plan by its title, with the way to it; of one that is not on the shelf it is said what to do. */
export function TextItem({ title }: { title: string }) {
  const { data } = useKept(listTexts, {}, { revalidateOnFocus: false });
  const text = data?.find((one) => one.title === title);
  return (
    <div className="mt-1">
      <p className="font-child text-xl">
        {text ? (
          <Link
            to={`/texts/${text.id}`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {title}
          </Link>
        ) : (
          title
        )}
      </p>
      {data && !text && (
        <p role="status" className="no-print mt-1 text-damson">
          No text of this name is on the shelf. <strong>Others</strong> takes one that these children can read; the
          rest of the plan stands.
        </p>
      )}
    </div>
  );
}
