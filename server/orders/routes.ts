import { addOrder, editOrder, type OrderBody, removeOrder } from "#contract";
import { orderProblems } from "#core/order";
import { mustAgree, mustBeSame } from "../frame/again.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

async function mustOrder(school: School, id: string) {
  const found = await school.orders.find(id);
  if (!found) throw notFound("teaching order");
  return found;
}

function refuseBadOrder(content: OrderBody): void {
  const says = orderProblems(content);
  if (says[0])
    throw unfit(
      says[0],
      says.map((text) => ({ field: "content", says: text })),
    );
}

/** Teaching orders: those that ship stay as they are, the school edits its own. */
export function orderRoutes({ serve }: Domain): void {
  serve(addOrder, async ({ body, school }) => {
    refuseBadOrder(body.content);
    await school.orders.insert(body);
    const made = await mustOrder(school, body.id);
    mustBeSame("teaching order", made.content, body.content);
    return made;
  });

  serve(editOrder, async ({ params, body, school }) => {
    const order = await mustOrder(school, params.id);
    if (order.shipped) throw unfit("This order ships with the tool and stays as it is. Make a copy and edit that.");
    refuseBadOrder(body.content);
    const stranded = order.usedBy.find(
      (one) => one.stepId !== null && !body.content.steps.some((step) => step.id === one.stepId),
    );
    if (stranded) {
      throw unfit(
        `${stranded.name} is marked as taught up to a step that this would remove. Move its mark to another step first.`,
      );
    }
    if (!(await school.orders.update(order.id, body.version, body.content))) {
      const { version, content } = await mustOrder(school, order.id);
      mustAgree("this order", {
        version,
        mine: { content: body.content },
        theirs: { content },
      });
    }
    return mustOrder(school, order.id);
  });

  serve(removeOrder, async ({ params, school }) => {
    const order = await mustOrder(school, params.id);
    if (order.shipped) throw unfit("This order ships with the tool and stays.");
    const user = order.usedBy[0];
    if (user) throw unfit(`${user.name} uses this order. Give it another order first.`);
    await school.orders.remove(order.id);
    return { done: true as const };
  });
}
