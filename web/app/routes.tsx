import type { ComponentType } from "react";
import { createBrowserRouter, type RouteObject } from "react-router";
import { ButtonLink } from "#web/parts/button.tsx";
import { Page } from "#web/parts/page.tsx";
import { Today } from "#web/screens/today/today.tsx";
import { Broken } from "./broken.tsx";
import { Shell } from "./shell.tsx";

/**
 * A screen that is fetched when its address is opened. The router waits for it and shows it as soon as it is there; the
 * page before stays meanwhile. React's `lazy` would show it no sooner than a third of a second after its waiting.
 */
const later = (load: () => Promise<{ Screen: ComponentType }>): Pick<RouteObject, "lazy"> => ({
  lazy: async () => ({ Component: (await load()).Screen }),
});

function Nowhere() {
  return (
    <Page place="Not found" title="There is nothing here">
      <p className="mb-4">The address may be old, or something was removed.</p>
      <ButtonLink to="/" shape="main">
        Go to Today
      </ButtonLink>
    </Page>
  );
}

const ofWeek = () => import("#web/screens/week/all.ts");

/** Every address of the application, and what stands under it. */
export const openRouter = () =>
  createBrowserRouter([
    {
      element: <Shell />,
      errorElement: <Broken />,
      children: [
        { path: "/", element: <Today /> },
        { path: "/class", ...later(() => import("#web/screens/class/class.tsx")) },
        { path: "/class/:classId", ...later(() => import("#web/screens/class/class.tsx")) },
        { path: "/import", ...later(() => import("#web/screens/class/import.tsx")) },
        { path: "/child/:childId", ...later(() => import("#web/screens/class/child.tsx")) },
        { path: "/week", ...later(async () => ({ Screen: (await ofWeek()).Week })) },
        { path: "/week/timetable", ...later(async () => ({ Screen: (await ofWeek()).Timetable })) },
        { path: "/week/hours", ...later(async () => ({ Screen: (await ofWeek()).Hours })) },
        { path: "/orders", ...later(() => import("#web/screens/orders/orders.tsx")) },
        { path: "/orders/:orderId", ...later(() => import("#web/screens/orders/order.tsx")) },
        { path: "/check", ...later(() => import("#web/screens/check/choose.tsx")) },
        { path: "/check/:sittingId", ...later(() => import("#web/screens/check/desk.tsx")) },
        { path: "/check/:sittingId/result", ...later(() => import("#web/screens/check/result.tsx")) },
        { path: "/check/:sittingId/sheets", ...later(() => import("#web/screens/check/sheets.tsx")) },
        { path: "/gaps", ...later(() => import("#web/screens/gaps/gaps.tsx")) },
        { path: "/sure", ...later(() => import("#web/screens/sure/sure.tsx")) },
        { path: "/groups", ...later(() => import("#web/screens/groups/groups.tsx")) },
        { path: "/groups/school", ...later(() => import("#web/screens/groups/overview.tsx")) },
        { path: "/groups/new", ...later(() => import("#web/screens/groups/propose.tsx")) },
        { path: "/groups/:groupId", ...later(() => import("#web/screens/groups/group.tsx")) },
        { path: "/sessions", ...later(() => import("#web/screens/sessions/sessions.tsx")) },
        { path: "/sessions/routines", ...later(() => import("#web/screens/sessions/routines.tsx")) },
        { path: "/sessions/:sessionId", ...later(() => import("#web/screens/sessions/session.tsx")) },
        {
          path: "/sessions/:sessionId/materials",
          ...later(() => import("#web/screens/sessions/materials.tsx")),
        },
        { path: "/sessions/:sessionId/teach", ...later(() => import("#web/screens/teach/teach.tsx")) },
        { path: "/words", ...later(() => import("#web/screens/words/words.tsx")) },
        { path: "/texts", ...later(() => import("#web/screens/texts/texts.tsx")) },
        { path: "/texts/new", ...later(() => import("#web/screens/texts/text-editor.tsx")) },
        { path: "/texts/:textId/edit", ...later(() => import("#web/screens/texts/text-editor.tsx")) },
        { path: "/texts/:textId/prepare", ...later(() => import("#web/screens/texts/prepare.tsx")) },
        { path: "/texts/:textId", ...later(() => import("#web/screens/texts/text.tsx")) },
        { path: "/texts/:textId/read", ...later(() => import("#web/screens/texts/reading-desk.tsx")) },
        { path: "/settings", ...later(() => import("#web/screens/settings/settings.tsx")) },
        { path: "/settings/people", ...later(() => import("#web/screens/settings/people.tsx")) },
        { path: "/settings/mine", ...later(() => import("#web/screens/settings/mine.tsx")) },
        { path: "/settings/trail", ...later(() => import("#web/screens/settings/trail.tsx")) },
        { path: "/settings/year", ...later(() => import("#web/screens/settings/year.tsx")) },
        { path: "/numbers", ...later(() => import("#web/screens/numbers/numbers.tsx")) },
        { path: "/help", ...later(() => import("#web/screens/help/help.tsx")) },
        { path: "*", element: <Nowhere /> },
      ],
    },
    {
      path: "/invited/:token",
      errorElement: <Broken />,
      ...later(() => import("#web/screens/door/invited.tsx")),
    },
    { path: "/look", errorElement: <Broken />, ...later(() => import("#web/screens/check/look.tsx")) },
    { path: "/face", errorElement: <Broken />, ...later(() => import("#web/screens/check/face.tsx")) },
    {
      path: "/shared/:token",
      errorElement: <Broken />,
      ...later(() => import("#web/screens/sessions/shared.tsx")),
    },
    {
      path: "/shared/:token/teach",
      errorElement: <Broken />,
      ...later(() => import("#web/screens/teach/by-link.tsx")),
    },
  ]);
