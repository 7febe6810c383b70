import { type ComponentType, lazy, Suspense } from "react";
import { createBrowserRouter } from "react-router";
import { ButtonLink } from "#web/parts/button.tsx";
import { Page, Waiting } from "#web/parts/page.tsx";
import { Today } from "#web/screens/today/today.tsx";
import { Broken } from "./broken.tsx";
import { Shell } from "./shell.tsx";

function later(load: () => Promise<{ Screen: ComponentType }>) {
  const Screen = lazy(async () => ({ default: (await load()).Screen }));
  return (
    <Suspense
      fallback={
        <div className="p-6">
          <Waiting />
        </div>
      }
    >
      <Screen />
    </Suspense>
  );
}

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
        { path: "/class", element: later(() => import("#web/screens/class/class.tsx")) },
        { path: "/class/:classId", element: later(() => import("#web/screens/class/class.tsx")) },
        { path: "/import", element: later(() => import("#web/screens/class/import.tsx")) },
        { path: "/child/:childId", element: later(() => import("#web/screens/class/child.tsx")) },
        { path: "/week", element: later(async () => ({ Screen: (await ofWeek()).Week })) },
        { path: "/week/timetable", element: later(async () => ({ Screen: (await ofWeek()).Timetable })) },
        { path: "/week/hours", element: later(async () => ({ Screen: (await ofWeek()).Hours })) },
        { path: "/orders", element: later(() => import("#web/screens/orders/orders.tsx")) },
        { path: "/orders/:orderId", element: later(() => import("#web/screens/orders/order.tsx")) },
        { path: "/check", element: later(() => import("#web/screens/check/choose.tsx")) },
        { path: "/check/:sittingId", element: later(() => import("#web/screens/check/desk.tsx")) },
        { path: "/check/:sittingId/result", element: later(() => import("#web/screens/check/result.tsx")) },
        { path: "/check/:sittingId/sheets", element: later(() => import("#web/screens/check/sheets.tsx")) },
        { path: "/gaps", element: later(() => import("#web/screens/gaps/gaps.tsx")) },
        { path: "/sure", element: later(() => import("#web/screens/sure/sure.tsx")) },
        { path: "/groups", element: later(() => import("#web/screens/groups/groups.tsx")) },
        { path: "/groups/school", element: later(() => import("#web/screens/groups/overview.tsx")) },
        { path: "/groups/new", element: later(() => import("#web/screens/groups/propose.tsx")) },
        { path: "/groups/:groupId", element: later(() => import("#web/screens/groups/group.tsx")) },
        { path: "/sessions", element: later(() => import("#web/screens/sessions/sessions.tsx")) },
        { path: "/sessions/routines", element: later(() => import("#web/screens/sessions/routines.tsx")) },
        { path: "/sessions/:sessionId", element: later(() => import("#web/screens/sessions/session.tsx")) },
        {
          path: "/sessions/:sessionId/materials",
          element: later(() => import("#web/screens/sessions/materials.tsx")),
        },
        { path: "/sessions/:sessionId/teach", element: later(() => import("#web/screens/teach/teach.tsx")) },
        { path: "/words", element: later(() => import("#web/screens/words/words.tsx")) },
        { path: "/texts", element: later(() => import("#web/screens/texts/texts.tsx")) },
        { path: "/texts/new", element: later(() => import("#web/screens/texts/text-editor.tsx")) },
        { path: "/texts/:textId/edit", element: later(() => import("#web/screens/texts/text-editor.tsx")) },
        { path: "/texts/:textId/prepare", element: later(() => import("#web/screens/texts/prepare.tsx")) },
        { path: "/texts/:textId", element: later(() => import("#web/screens/texts/text.tsx")) },
        { path: "/texts/:textId/read", element: later(() => import("#web/screens/texts/reading-desk.tsx")) },
        { path: "/settings", element: later(() => import("#web/screens/settings/settings.tsx")) },
        { path: "/settings/people", element: later(() => import("#web/screens/settings/people.tsx")) },
        { path: "/settings/mine", element: later(() => import("#web/screens/settings/mine.tsx")) },
        { path: "/settings/trail", element: later(() => import("#web/screens/settings/trail.tsx")) },
        { path: "/settings/year", element: later(() => import("#web/screens/settings/year.tsx")) },
        { path: "/numbers", element: later(() => import("#web/screens/numbers/numbers.tsx")) },
        { path: "/help", element: later(() => import("#web/screens/help/help.tsx")) },
        { path: "*", element: <Nowhere /> },
      ],
    },
    {
      path: "/invited/:token",
      errorElement: <Broken />,
      element: later(() => import("#web/screens/door/invited.tsx")),
    },
    { path: "/look", errorElement: <Broken />, element: later(() => import("#web/screens/check/look.tsx")) },
    { path: "/face", errorElement: <Broken />, element: later(() => import("#web/screens/check/face.tsx")) },
    {
      path: "/shared/:token",
      errorElement: <Broken />,
      element: later(() => import("#web/screens/sessions/shared.tsx")),
    },
    {
      path: "/shared/:token/teach",
      errorElement: <Broken />,
      element: later(() => import("#web/screens/teach/by-link.tsx")),
    },
  ]);
