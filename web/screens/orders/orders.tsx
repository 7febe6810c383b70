import { Copy } from "lucide-react";
import { useRef } from "react";
import { Link, useNavigate } from "react-router";
import { addOrder, getSchool, type OrderView } from "#contract";
import { allGpcs } from "#core/order";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** The teaching orders of the school: three that ship, and its own. */
export function Screen() {
  const lead = useIsAtLeast("lead");
  const { data, error } = useAsk(getSchool, {});
  const navigate = useNavigate();
  const ids = useRef(new Map<string, string>());
  const copy = async (order: OrderView) => {
    const id = ids.current.get(order.id) ?? newId();
    ids.current.set(order.id, id);
    try {
      await call(addOrder, {
        body: { id, content: { ...order.content, name: `${order.content.name}, our copy`.slice(0, 80) } },
      });
      await refreshAll();
      navigate(`/orders/${id}`);
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Page
      place="Teaching orders"
      title="Teaching orders"
      about="In which order spellings are taught, step by step. The three that ship stay as they are; copy one to make it yours."
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      <ul className="flex flex-col gap-3">
        {data?.orders.map((order) => (
          <li key={order.id} className="rounded-lg border border-line bg-sheet p-4">
            <div className="flex flex-wrap items-start justify-between gap-3">
              <div className="max-w-[46rem]">
                <h2>
                  <Link
                    to={`/orders/${order.id}`}
                    className="underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {order.content.name}
                  </Link>
                </h2>
                <p className="text-soft">{order.content.kind}</p>
                <p className="mt-1">{order.content.why}</p>
                <p className="mt-1 text-sm text-soft">
                  {plural(allGpcs(order.content).length, "spelling")} in {plural(order.content.steps.length, "step")}
                  {order.usedBy.length > 0 && `, used by ${order.usedBy.map((one) => one.name).join(", ")}`}
                  {order.shipped ? ", ships with the tool" : ", your school's own"}
                </p>
              </div>
              {lead && (
                <Button onClick={() => copy(order)} aria-label={`Copy ${order.content.name}`}>
                  <Copy size={15} aria-hidden /> Copy
                </Button>
              )}
            </div>
          </li>
        ))}
      </ul>
    </Page>
  );
}
