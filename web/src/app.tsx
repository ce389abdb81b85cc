import { Box, chakra, Flex } from "@chakra-ui/react";
import { lazy, Suspense, useState } from "react";
import { Link, NavLink, Route, Routes, useLocation, useNavigate } from "react-router";
import { RigView } from "./rig/view";
import { Boundary } from "./ui/boundary";
import { Press } from "./ui/button";
import { keys, useKey } from "./ui/keys";
import { type Light, useLight } from "./ui/light";
import { Select } from "./ui/pick";
import { Sheet } from "./ui/sheet";

const KnotView = lazy(() => import("./knot/view").then((m) => ({ default: m.KnotView })));
const KnotList = lazy(() => import("./knot/list").then((m) => ({ default: m.KnotList })));
const JobList = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobList })));
const JobView = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobView })));
const CompareView = lazy(() => import("./knot/compare").then((m) => ({ default: m.CompareView })));
const DoctrinesView = lazy(() => import("./doctrines/view").then((m) => ({ default: m.DoctrinesView })));
const DrillView = lazy(() => import("./knot/drill").then((m) => ({ default: m.DrillView })));
const MethodView = lazy(() => import("./method/view").then((m) => ({ default: m.MethodView })));
const SayingsView = lazy(() => import("./method/sayings").then((m) => ({ default: m.SayingsView })));
const LogView = lazy(() => import("./log/view").then((m) => ({ default: m.LogView })));

const places = [
  { to: "/", name: "Rig" },
  { to: "/knots", name: "Knots" },
  { to: "/jobs", name: "Jobs" },
  { to: "/log", name: "Log" },
];

const lights: { id: Light; name: string }[] = [
  { id: "day", name: "Day light" },
  { id: "sun", name: "Full sun" },
  { id: "night", name: "Night" },
];

export function App() {
  const [light, setLight] = useLight();
  const [help, setHelp] = useState(false);
  const go = useNavigate();
  const where = useLocation().pathname;
  useKey("rig", () => go("/"));
  useKey("knots", () => go("/knots"));
  useKey("jobs", () => go("/jobs"));
  useKey("log", () => go("/log"));
  useKey("sun", () => setLight(light === "sun" ? "day" : "sun"));
  useKey("help", () => setHelp(true));
  return (
    <Flex direction="column" minH="100vh">
      <Head light={light} setLight={setLight} help={() => setHelp(true)} />
      <Boundary where={where}>
        <Suspense fallback={<Box p="6">Loading…</Box>}>
          <Routes>
            <Route path="/" element={<RigView />} />
            <Route path="/knots" element={<KnotList />} />
            <Route path="/knots/:id" element={<KnotView />} />
            <Route path="/knots/:id/drill" element={<DrillView />} />
            <Route path="/compare" element={<CompareView />} />
            <Route path="/doctrines" element={<DoctrinesView />} />
            <Route path="/jobs" element={<JobList />} />
            <Route path="/jobs/:id" element={<JobView />} />
            <Route path="/method" element={<MethodView />} />
            <Route path="/sayings" element={<SayingsView />} />
            <Route path="/log" element={<LogView />} />
            <Route
              path="*"
              element={<Box p="6">There is no page here. Use Rig, Knots, Jobs or Log above.</Box>}
            />
          </Routes>
        </Suspense>
      </Boundary>
      <Sheet open={help} close={() => setHelp(false)} title="Keys">
        {Object.values(keys).map(({ shown, does }) => (
          <Flex key={shown} gap="4" py="1.5">
            <Box minW="110px" fontWeight="700">
              {shown}
            </Box>
            <Box>{does}</Box>
          </Flex>
        ))}
        <Box mt="3">
          Where every number comes from:{" "}
          <Link to="/method" className="link strong" onClick={() => setHelp(false)}>
            Method
          </Link>
        </Box>
      </Sheet>
    </Flex>
  );
}

const Place = chakra(NavLink, {
  base: {
    display: "flex",
    h: "100%",
    minW: { base: "44px", sm: "52px" },
    px: { base: 1.5, md: 4 },
    alignItems: "center",
    justifyContent: "center",
    borderBlock: "4px solid transparent",
    "&[aria-current=page]": { fontWeight: 700, borderBottomColor: "#e2a03c" },
  },
});

function Head(props: { light: Light; setLight: (l: Light) => void; help: () => void }) {
  return (
    <Flex
      as="header"
      className="no-print"
      align="center"
      gap={{ base: 1, md: 5 }}
      px={{ base: 2, md: 6 }}
      h="56px"
      bg="kelp"
      color="kelpInk"
    >
      <Flex align="center" gap="2" className="head" fontSize="xl">
        <Sign />
        <Box display={{ base: "none", sm: "block" }}>Oarweed</Box>
      </Flex>
      <Flex as="nav" aria-label="Views" h="100%" gap="1">
        {places.map((p) => (
          <Place key={p.to} to={p.to} end={p.to === "/"}>
            {p.name}
          </Place>
        ))}
      </Flex>
      <Box flex="1" />
      <Select plain label="Light" value={props.light} set={(l) => props.setLight(l as Light)} list={lights} />
      <Press look="head" minW="44px" aria-label="Keys and help" onClick={props.help}>
        ?
      </Press>
    </Flex>
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
