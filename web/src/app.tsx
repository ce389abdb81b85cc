import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Navigate, NavLink, Route, Routes, useLocation, useNavigate } from "react-router";
import { DueCount } from "./lines/due-count";
import { RigView } from "./rig/view";
import { Boundary } from "./ui/boundary";
import { Press } from "./ui/button";
import { Connection } from "./ui/connection";
import { FirstVisit, HelpSheet } from "./ui/help";
import { useKey } from "./ui/keys";
import { type Light, useLight } from "./ui/light";
import { prefs, unitsWanted, usePrefs } from "./ui/prefs";
import { Skip } from "./ui/skip";

const KnotView = lazy(() => import("./knot/view").then((m) => ({ default: m.KnotView })));
const KnotList = lazy(() => import("./knot/list").then((m) => ({ default: m.KnotList })));
const JobList = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobList })));
const JobView = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobView })));
const CompareView = lazy(() => import("./knot/compare").then((m) => ({ default: m.CompareView })));
const DoctrinesView = lazy(() => import("./doctrines/view").then((m) => ({ default: m.DoctrinesView })));
const DrillView = lazy(() => import("./knot/drill").then((m) => ({ default: m.DrillView })));
const NameView = lazy(() => import("./knot/name").then((m) => ({ default: m.NameView })));
const WordsView = lazy(() => import("./knot/words").then((m) => ({ default: m.WordsView })));
const FewestView = lazy(() => import("./knot/fewest").then((m) => ({ default: m.FewestView })));
const RollsView = lazy(() => import("./knot/rolls").then((m) => ({ default: m.RollsView })));
const QuizView = lazy(() => import("./knot/quiz").then((m) => ({ default: m.QuizView })));
const MethodView = lazy(() => import("./method/view").then((m) => ({ default: m.MethodView })));
const SayingsView = lazy(() => import("./method/sayings").then((m) => ({ default: m.SayingsView })));
const ShowView = lazy(() => import("./knot/show").then((m) => ({ default: m.ShowView })));
const FindSheet = lazy(() => import("./find").then((m) => ({ default: m.FindSheet })));
const LogView = lazy(() => import("./log/view").then((m) => ({ default: m.LogView })));

const BenchView = lazy(() => import("./bench/view").then((m) => ({ default: m.BenchView })));
const LedgerView = lazy(() => import("./bench/ledger").then((m) => ({ default: m.LedgerView })));
const DetectiveView = lazy(() => import("./bench/detective").then((m) => ({ default: m.DetectiveView })));
const FrictionView = lazy(() => import("./bench/friction").then((m) => ({ default: m.FrictionView })));
const SeriesView = lazy(() => import("./bench/series").then((m) => ({ default: m.SeriesView })));

const LockerView = lazy(() => import("./lines/locker").then((m) => ({ default: m.LockerView })));
const LineView = lazy(() => import("./lines/line").then((m) => ({ default: m.LineView })));
const LeadersView = lazy(() => import("./lines/leaders").then((m) => ({ default: m.LeadersView })));
const TowView = lazy(() => import("./lines/tow").then((m) => ({ default: m.TowView })));
const MooringsView = lazy(() => import("./lines/moorings").then((m) => ({ default: m.MooringsView })));
const UsesView = lazy(() => import("./lines/uses").then((m) => ({ default: m.UsesView })));
const QuaysideView = lazy(() => import("./lines/quay").then((m) => ({ default: m.QuaysideView })));
const ToDoView = lazy(() => import("./lines/todo").then((m) => ({ default: m.ToDoView })));

const BoardView = lazy(() => import("./teach/board").then((m) => ({ default: m.BoardView })));
const ClassView = lazy(() => import("./teach/class").then((m) => ({ default: m.ClassView })));
const DueView = lazy(() => import("./teach/due").then((m) => ({ default: m.DueView })));
const ReportView = lazy(() => import("./teach/report").then((m) => ({ default: m.ReportView })));
const PersonView = lazy(() => import("./teach/person").then((m) => ({ default: m.PersonView })));
const PeopleView = lazy(() => import("./teach/people").then((m) => ({ default: m.PeopleView })));
const LessonsView = lazy(() => import("./teach/plan").then((m) => ({ default: m.LessonsView })));
const PlanView = lazy(() => import("./teach/plan").then((m) => ({ default: m.PlanView })));
const QuayView = lazy(() => import("./teach/quay").then((m) => ({ default: m.QuayView })));
const GearCode = lazy(() => import("./teach/gear-code").then((m) => ({ default: m.GearCode })));
const RunView = lazy(() => import("./teach/run").then((m) => ({ default: m.RunView })));

/** from: the least width of a window, in pixels, in which there is room for it. */
const places: { to: string; name: string; from?: number }[] = [
  { to: "/", name: "Rig" },
  { to: "/knots", name: "Knots" },
  { to: "/teach", name: "Teach" },
  { to: "/bench", name: "Bench", from: 680 },
  { to: "/lines", name: "Lines", from: 720 },
  { to: "/jobs", name: "Jobs" },
  { to: "/log", name: "Log" },
  { to: "/method", name: "Method", from: 1440 },
];

const lights = [
  { id: "day", name: "Day light" },
  { id: "sun", name: "Full sun" },
  { id: "night", name: "Night" },
] as const satisfies readonly { id: Light; name: string }[];

export function App() {
  const [light, setLight] = useLight();
  const [help, setHelp] = useState(false);
  const [find, setFind] = useState(false);
  const go = useNavigate();
  const { pathname: where, search } = useLocation();
  useOpening(where + search);
  const units = useUnits();
  useKey("rig", () => go("/"));
  useKey("knots", () => go("/knots"));
  useKey("jobs", () => go("/jobs"));
  useKey("teach", () => go("/teach"));
  useKey("log", () => go("/log"));
  useKey("bench", () => go("/bench"));
  useKey("lines", () => go("/lines"));
  useKey("name", () => go("/knots/name"));
  useKey("sun", () => setLight(light === "sun" ? "day" : "sun"));
  useKey("help", () => setHelp(true));
  useKey("find", () => setFind(true));
  return (
    <Flex direction="column" minH="100vh">
      {where === "/" && <Skip />}
      {/* A class in the hand has the whole of a phone. */}
      <Box display={where === "/teach/class" ? { base: "none", md: "block" } : undefined}>
        <Head light={light} setLight={setLight} help={() => setHelp(true)} find={() => setFind(true)} />
      </Box>
      <Connection />
      {where === "/" && <FirstVisit />}
      <Boundary key={units} where={where}>
        <Suspense fallback={<Box p="6">Loading…</Box>}>
          <Routes>
            <Route path="/" element={<RigView />} />
            <Route path="/knots" element={<KnotList />} />
            <Route path="/knots/name" element={<NameView />} />
            <Route path="/knots/fewest" element={<FewestView />} />
            <Route path="/knots/rolls" element={<RollsView />} />
            <Route path="/knots/quiz" element={<QuizView />} />
            <Route path="/words" element={<WordsView />} />
            <Route path="/knots/:id" element={<KnotView />} />
            <Route path="/knots/:id/drill" element={<DrillView />} />
            <Route path="/knots/:id/show" element={<ShowView />} />
            <Route path="/compare" element={<CompareView />} />
            <Route path="/doctrines" element={<DoctrinesView />} />
            <Route path="/jobs" element={<JobList />} />
            <Route path="/jobs/:id" element={<JobView />} />
            <Route path="/method" element={<MethodView />} />
            <Route path="/sayings" element={<SayingsView />} />
            <Route path="/bench" element={<BenchView />} />
            <Route path="/bench/ledger" element={<LedgerView />} />
            <Route path="/bench/detective" element={<DetectiveView />} />
            <Route path="/bench/friction" element={<FrictionView />} />
            <Route path="/bench/:id" element={<SeriesView />} />
            <Route path="/lines" element={<LockerView />} />
            <Route path="/lines/leaders" element={<LeadersView />} />
            <Route path="/lines/tow" element={<TowView />} />
            <Route path="/lines/moorings" element={<MooringsView />} />
            <Route path="/lines/use" element={<UsesView />} />
            <Route path="/lines/quay" element={<QuaysideView />} />
            <Route path="/lines/:code" element={<LineView />} />
            <Route path="/jobs/leaders" element={<Navigate to="/lines/leaders" replace />} />
            <Route path="/jobs/mooring" element={<Navigate to="/lines/moorings" replace />} />
            <Route path="/due" element={<ToDoView />} />
            <Route path="/teach" element={<BoardView />} />
            <Route path="/teach/class" element={<ClassView />} />
            <Route path="/teach/report" element={<ReportView />} />
            <Route path="/teach/due" element={<DueView />} />
            <Route path="/teach/people" element={<PeopleView />} />
            <Route path="/teach/people/:id" element={<PersonView />} />
            <Route path="/teach/quay" element={<QuayView />} />
            <Route path="/g/:code" element={<GearCode />} />
            <Route path="/teach/plan" element={<LessonsView />} />
            <Route path="/teach/plan/:id" element={<PlanView />} />
            <Route path="/teach/plan/:id/run" element={<RunView />} />
            <Route path="/log" element={<LogView />} />
            <Route
              path="*"
              element={
                <Box p="6">
                  There is no page here. Use Rig, Knots, Teach, Bench, Lines, Jobs or Log above.
                </Box>
              }
            />
          </Routes>
        </Suspense>
      </Boundary>
      <HelpSheet open={help} close={() => setHelp(false)} light={light} setLight={setLight} />
      {find && (
        <Suspense fallback={null}>
          <FindSheet close={() => setFind(false)} />
        </Suspense>
      )}
    </Flex>
  );
}

/** Opened without an address, the application shows the view that is preferred. */
function useOpening(address: string) {
  const go = useNavigate();
  const first = useRef(true);
  useEffect(() => {
    const { opens } = prefs();
    if (first.current && address === "/" && opens !== "rig") go(`/${opens}`, { replace: true });
    first.current = false;
  }, [address, go]);
}

/** The units wanted; when they change, what was said in others is asked for again. */
function useUnits(): string {
  usePrefs();
  const wanted = unitsWanted();
  const before = useRef(wanted);
  const client = useQueryClient();
  useEffect(() => {
    if (before.current !== wanted) void client.resetQueries();
    before.current = wanted;
  }, [wanted, client]);
  return wanted;
}

const Place = chakra(NavLink, {
  base: {
    display: "flex",
    h: "100%",
    minW: { base: "44px", sm: "52px" },
    px: { base: 1, md: 2, xl: 3 },
    alignItems: "center",
    justifyContent: "center",
    borderBlock: "4px solid transparent",
    "&[aria-current=page]": { fontWeight: 700, borderBottomColor: "#e2a03c" },
    "@media (max-width: 359px)": { fontSize: "14px", paddingInline: "3px", minWidth: "36px" },
  },
});

function Head(props: { light: Light; setLight: (l: Light) => void; help: () => void; find: () => void }) {
  const at = lights.findIndex((l) => l.id === props.light);
  const now = lights[at] ?? lights[0];
  const next = lights[(at + 1) % lights.length] ?? lights[0];
  return (
    <Flex
      as="header"
      className="no-print"
      align="center"
      gap={{ base: 0, md: 2, xl: 3 }}
      px={{ base: 2, md: 6 }}
      h="56px"
      bg="kelp"
      color="kelpInk"
    >
      <Flex align="center" gap="2" className="head" fontSize="xl">
        <Box asChild display="none" css={{ "@media (min-width: 480px)": { display: "block" } }}>
          <span>
            <Sign />
          </span>
        </Box>
        <Box display={{ base: "none", xl: "block" }}>Oarweed</Box>
      </Flex>
      <Flex as="nav" aria-label="Views" h="100%" gap="1">
        {places.map((p) => (
          <Place
            key={p.to}
            to={p.to}
            end={p.to === "/"}
            css={p.from ? { [`@media (max-width: ${p.from - 1}px)`]: { display: "none" } } : undefined}
          >
            {p.name}
          </Place>
        ))}
      </Flex>
      <Box flex="1" />
      <Flex id="head-slot" align="center" gap="2" minW="0" display={{ base: "none", lg: "flex" }} />
      <DueCount />
      <Press
        look="head"
        minW="44px"
        aria-label="Find"
        title="Find a knot, a task, a job, a fault"
        onClick={props.find}
      >
        <svg
          width="20"
          height="20"
          viewBox="0 0 20 20"
          fill="none"
          stroke="currentColor"
          strokeWidth="2.2"
          aria-hidden="true"
        >
          <circle cx="8" cy="8" r="5.5" />
          <path d="M12.500 12.500L18 18" strokeLinecap="round" />
        </svg>
      </Press>
      <Press
        look="head"
        minW="44px"
        display={{ base: "none", sm: "inline-flex" }}
        aria-label={`Light: ${next.name} next`}
        title={`${now.name}; press for ${next.name.toLowerCase()}`}
        onClick={() => props.setLight(next.id)}
      >
        <LightSign light={props.light} />
      </Press>
      <Press look="head" minW="44px" aria-label="Help and preferences" onClick={props.help}>
        ?
      </Press>
    </Flex>
  );
}

/** Half a sun, a sun with rays, a moon. */
function LightSign({ light }: { light: Light }) {
  return (
    <svg
      width="22"
      height="22"
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
      strokeLinecap="round"
      aria-hidden="true"
    >
      {light === "night" ? (
        <path d="M19 14a8 8 0 01-9-11 9 9 0 109 11z" fill="currentColor" />
      ) : (
        <>
          <circle cx="12" cy="12" r="4.4" fill={light === "sun" ? "currentColor" : "none"} />
          <path d="M12 2v3M12 19v3M2 12h3M19 12h3M5 5l2 2M17 17l2 2M19 5l-2 2M7 17l-2 2" />
        </>
      )}
    </svg>
  );
}

function Sign() {
  return (
    <svg width="26" height="26" viewBox="0 0 32 32" aria-hidden="true">
      <path d="M16 30C9 22 23 18 15 8" fill="none" stroke="#7fc1b4" strokeWidth="3.2" strokeLinecap="round" />
      <path d="M17 20c6-1 8-4 8-10-6 0-9 4-8 10zM14 25c-6-1-8-4-8-9 6 0 9 3 8 9z" fill="#7fc1b4" />
      <circle cx="15" cy="5.5" r="4" fill="#e2a03c" />
    </svg>
  );
}
