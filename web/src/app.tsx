import { Box, Dialog, Flex, Portal } from "@chakra-ui/react";
import { lazy, Suspense, useEffect, useState } from "react";
import { NavLink, Route, Routes } from "react-router";
import { RigView } from "./rig/view";
import { isTyping } from "./ui/keys";
import { type Light, useLight } from "./ui/light";

const KnotView = lazy(() => import("./knot/view").then((m) => ({ default: m.KnotView })));
const KnotList = lazy(() => import("./knot/list").then((m) => ({ default: m.KnotList })));
const JobList = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobList })));
const JobView = lazy(() => import("./jobs/view").then((m) => ({ default: m.JobView })));
const CompareView = lazy(() => import("./knot/compare").then((m) => ({ default: m.CompareView })));
const SchoolsView = lazy(() => import("./schools/view").then((m) => ({ default: m.SchoolsView })));
const DrillView = lazy(() => import("./knot/drill").then((m) => ({ default: m.DrillView })));
const LogView = lazy(() => import("./log/view").then((m) => ({ default: m.LogView })));

const places = [
  { to: "/", name: "Rig", key: "r" },
  { to: "/knots", name: "Knots", key: "k" },
  { to: "/jobs", name: "Jobs", key: "j" },
  { to: "/log", name: "Log", key: "l" },
];

export function App() {
  const [light, setLight] = useLight();
  const [help, setHelp] = useState(false);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e)) return;
      const place = places.find((p) => p.key === e.key);
      if (place) document.querySelector<HTMLAnchorElement>(`nav a[href="${place.to}"]`)?.click();
      else if (e.key === "?") setHelp(true);
      else if (e.key === "s") setLight(light === "sun" ? "day" : "sun");
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [light, setLight]);
  return (
    <Flex direction="column" minH="100vh">
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
        <Flex align="center" gap="2" className="head" fontSize="22px">
          <svg width="26" height="26" viewBox="0 0 32 32" aria-hidden="true">
            <path
              d="M16 30C9 22 23 18 15 8"
              fill="none"
              stroke="#7fc1b4"
              strokeWidth="3.2"
              strokeLinecap="round"
            />
            <path d="M17 20c6-1 8-4 8-10-6 0-9 4-8 10zM14 25c-6-1-8-4-8-9 6 0 9 3 8 9z" fill="#7fc1b4" />
            <circle cx="15" cy="5.5" r="4" fill="#e2a03c" />
          </svg>
          <Box display={{ base: "none", sm: "block" }}>Oarweed</Box>
        </Flex>
        <Flex as="nav" aria-label="Views" h="100%" gap="1">
          {places.map((p) => (
            <NavLink key={p.to} to={p.to} end={p.to === "/"}>
              {({ isActive }) => (
                <Flex
                  h="100%"
                  minW={{ base: "44px", sm: "52px" }}
                  px={{ base: 1.5, md: 4 }}
                  align="center"
                  justify="center"
                  fontWeight={isActive ? 700 : 400}
                  borderBottom="4px solid"
                  borderTop="4px solid transparent"
                  borderColor={isActive ? "#e2a03c" : "transparent"}
                >
                  {p.name}
                </Flex>
              )}
            </NavLink>
          ))}
        </Flex>
        <Box flex="1" />
        <label>
          <span className="sr-only" style={{ position: "absolute", left: -9999 }}>
            Light
          </span>
          <select
            value={light}
            onChange={(e) => setLight(e.target.value as Light)}
            style={{
              minHeight: 44,
              background: "transparent",
              color: "inherit",
              padding: "0 2px",
              borderRadius: 8,
              maxWidth: "24vw",
            }}
          >
            {(["day", "sun", "night"] as const).map((l) => (
              <option key={l} value={l} style={{ color: "#000" }}>
                {{ day: "Day light", sun: "Full sun", night: "Night" }[l]}
              </option>
            ))}
          </select>
        </label>
        <Box
          as="button"
          minW="44px"
          minH="44px"
          cursor="pointer"
          fontWeight="700"
          aria-label="Keys and help"
          onClick={() => setHelp(true)}
        >
          ?
        </Box>
      </Flex>
      <Suspense fallback={<Box p="6">Loading…</Box>}>
        <Routes>
          <Route path="/" element={<RigView />} />
          <Route path="/knots" element={<KnotList />} />
          <Route path="/knots/:id" element={<KnotView />} />
          <Route path="/knots/:id/drill" element={<DrillView />} />
          <Route path="/compare" element={<CompareView />} />
          <Route path="/schools" element={<SchoolsView />} />
          <Route path="/jobs" element={<JobList />} />
          <Route path="/jobs/:id" element={<JobView />} />
          <Route path="/log" element={<LogView />} />
          <Route
            path="*"
            element={<Box p="6">There is no page here. Use Rig, Knots, Jobs or Log above.</Box>}
          />
        </Routes>
      </Suspense>
      <Help open={help} close={() => setHelp(false)} />
    </Flex>
  );
}

function Help({ open, close }: { open: boolean; close: () => void }) {
  const keys = [
    ["r  k  j  l", "Rig, Knots, Jobs, Log"],
    ["s", "Full sun on and off"],
    ["← →", "In the sentence: from phrase to phrase. On a knot: step back and on"],
    ["Enter", "Change the phrase"],
    ["a", "Record an attempt at this knot"],
    ["1 2 3 4", "On a knot: the four views"],
    ["Ctrl z", "On a rig: take the last change back; with Shift, do it again"],
    ["p", "On a knot: play the tying, and pause"],
  ];
  return (
    <Dialog.Root open={open} onOpenChange={(e) => !e.open && close()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="sheet" color="ink">
            <Dialog.Header>
              <Dialog.Title>Keys</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              {keys.map(([key, what]) => (
                <Flex key={key} gap="4" py="1.5">
                  <Box minW="80px" fontWeight="700" whiteSpace="pre">
                    {key}
                  </Box>
                  <Box>{what}</Box>
                </Flex>
              ))}
            </Dialog.Body>
            <Dialog.Footer>
              <Box
                as="button"
                minH="44px"
                px="5"
                bg="kelp"
                color="kelpInk"
                borderRadius="8px"
                cursor="pointer"
                onClick={close}
              >
                Close
              </Box>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
