import { Trans } from "@lingui/react/macro";
import { QueryClientProvider, useQuery } from "@tanstack/react-query";
import { lazy, type ReactNode, StrictMode, Suspense, useEffect, useState } from "react";
import { createBrowserRouter, Outlet, RouterProvider, useLocation } from "react-router";
import { ClockStrip } from "./alarm/ClockStrip";
import { api, ask } from "./api/client";
import { useReach } from "./api/connection";
import { kitchenQuery, queryClient, sessionQuery } from "./api/queries";
import { isOf, useRole } from "./api/roles";
import { Counter } from "./counter/Counter";
import { keepShell } from "./keepShell";
import { useLesson } from "./lesson/lesson";
import { TellingsProvider } from "./runs/EventSenders";
import { invitation, usedKey } from "./session/key";
import { SignedOut, SignIn } from "./session/SignIn";
import { Frame, Waiting } from "./ui/Frame";
import { MeasuresProvider } from "./ui/formatters";
import { TextLink } from "./ui/LinkButton";
import { Materials } from "./ui/materials";

const SheetPage = lazy(() => import("./sheet/SheetPage"));
const LessonStrip = lazy(() => import("./lesson/LessonStrip"));
const Welcome = lazy(() => import("./counter/Welcome"));
const Invited = lazy(() => import("./session/Invited"));
const Make = lazy(() => import("./make/Make"));
const OutcomePage = lazy(() => import("./log/OutcomePage"));
const Log = lazy(() => import("./log/Log"));
const BatchPage = lazy(() => import("./log/BatchPage"));
const OccasionPage = lazy(() => import("./occasion/OccasionPage"));
const HelperPage = lazy(() => import("./occasion/HelperPage"));
const YearPage = lazy(() => import("./occasion/YearPage"));
const LarderPage = lazy(() => import("./larder/LarderPage"));
const ShoppingPage = lazy(() => import("./shopping/ShoppingPage"));
const PastePage = lazy(() => import("./counter/PastePage"));
const StripsPage = lazy(() => import("./stations/cut/StripsPage"));
const DroppedPage = lazy(() => import("./counter/DroppedPage"));
const HandsPage = lazy(() => import("./hands/HandsPage"));
const RevisionsPage = lazy(() => import("./sheet/RevisionsPage"));
const ComparePage = lazy(() => import("./log/ComparePage"));
const BlindPage = lazy(() => import("./log/BlindPage"));
const SplitPage = lazy(() => import("./log/SplitPage"));
const TastePage = lazy(() => import("./log/TastePage"));
const SheetComparisonPage = lazy(() => import("./sheet/SheetComparisonPage"));
const OverTimePage = lazy(() => import("./log/OverTimePage"));
const LearnedPage = lazy(() => import("./log/LearnedPage"));
const LabelPage = lazy(() => import("./log/LabelPage"));
const ArchivePage = lazy(() => import("./kitchen/ArchivePage"));
const HouseholdPage = lazy(() => import("./household/HouseholdPage"));
const HelperToday = lazy(() => import("./household/HelperToday"));
const TasterToday = lazy(() => import("./household/TasterToday"));
const KitchenPage = lazy(() => import("./kitchen/KitchenPage"));

/** Everything behind the door: signed in, or asked to. Once in, the page stays when the session runs out. */
function House() {
  useLookout();
  const { pathname } = useLocation();
  const entered = useQuery({ queryKey: ["key"], staleTime: Number.POSITIVE_INFINITY, queryFn: () => usedKey });
  const session = useQuery({ ...sessionQuery, enabled: entered.isSuccess });
  const [been, setBeen] = useState(false);
  const [asked, setAsked] = useState(invitation);
  const learning = useLesson() !== null;
  const inside = session.data?.signed_in ?? false;
  useEffect(() => {
    if (inside) setBeen(true);
  }, [inside]);
  if (!session.data) return <Waiting error={session.error} />;
  if (asked)
    return (
      <Suspense fallback={<Waiting />}>
        <Invited invitation={asked} onDone={() => setAsked(null)} />
      </Suspense>
    );
  if (!inside && !been) return <SignIn error={entered.data} />;
  const role = session.data.role ?? "owner";
  const page = isOf(role, pathname) ? <Outlet /> : <Nowhere />;
  return (
    <Suspense fallback={<Waiting />}>
      {role === "taster" ? (
        page
      ) : (
        <TellingsProvider>
          {learning && <LessonStrip />}
          {page}
          <ClockStrip />
        </TellingsProvider>
      )}
      <SignedOut />
    </Suspense>
  );
}

/** What each comes to first. */
function Home() {
  const role = useRole();
  return role === "helper" ? <HelperToday /> : role === "taster" ? <TasterToday /> : <Counter />;
}

const LOOK_MS = 5_000;

/** While the kitchen is away, look now and then whether it is back; then read anew what is on the page. */
function useLookout() {
  const { away } = useReach();
  useEffect(() => {
    if (!away) return;
    const look = () => ask(api.GET("/api/session")).catch(() => {});
    const timer = window.setInterval(look, LOOK_MS);
    return () => {
      clearInterval(timer);
      void queryClient.invalidateQueries();
    };
  }, [away]);
}

function Nowhere() {
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Nothing here</Trans>
        </h1>
      }
    >
      <p className="mt-8 text-lg">
        <Trans>
          This page is not in the kitchen, or not for you. <TextLink to="/">Back to the start</TextLink>
        </Trans>
      </p>
    </Frame>
  );
}

const router = createBrowserRouter([
  {
    element: <House />,
    children: [
      { path: "/", element: <Home /> },
      { path: "/welcome", element: <Welcome /> },
      { path: "/sheets/:sheetId/strips", element: <StripsPage /> },
      { path: "/sheets/:sheetId/revisions", element: <RevisionsPage /> },
      { path: "/sheets/:sheetId/beside", element: <SheetComparisonPage /> },
      { path: "/compare", element: <ComparePage /> },
      { path: "/sheets/:sheetId/hands", element: <HandsPage /> },
      { path: "/stock/:stockId/label", element: <LabelPage /> },
      { path: "/sheets/:sheetId/:station?", element: <SheetPage /> },
      { path: "/make/:runId", element: <Make /> },
      { path: "/make/:runId/outcome", element: <OutcomePage /> },
      { path: "/occasions/:occasionId", element: <OccasionPage /> },
      { path: "/occasions/:occasionId/for/:who", element: <HelperPage /> },
      { path: "/year", element: <YearPage /> },
      { path: "/log", element: <Log /> },
      { path: "/log/learned", element: <LearnedPage /> },
      { path: "/log/over-time", element: <OverTimePage /> },
      { path: "/log/blind", element: <BlindPage /> },
      { path: "/log/blind/:splitId", element: <SplitPage /> },
      { path: "/log/:batchId", element: <BatchPage /> },
      { path: "/log/:batchId/taste", element: <TastePage /> },
      { path: "/larder", element: <LarderPage /> },
      { path: "/shopping", element: <ShoppingPage /> },
      { path: "/paste", element: <PastePage /> },
      { path: "/kitchen/:thing?", element: <KitchenPage /> },
      { path: "/kitchen/archive", element: <ArchivePage /> },
      { path: "/household", element: <HouseholdPage /> },
      { path: "/dropped", element: <DroppedPage /> },
      { path: "*", element: <Nowhere /> },
    ],
  },
]);

/** Figures within are in the measures of the kitchen that the page has read. */
function InKitchenMeasures({ children }: { children: ReactNode }) {
  const kitchen = useQuery({ ...kitchenQuery, enabled: false });
  return <MeasuresProvider measures={kitchen.data?.kitchen}>{children}</MeasuresProvider>;
}

/** The whole of it, in the language that has been set. */
export function Kemble() {
  return (
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <Materials />
        <InKitchenMeasures>
          <RouterProvider router={router} />
        </InKitchenMeasures>
      </QueryClientProvider>
    </StrictMode>
  );
}

keepShell();
