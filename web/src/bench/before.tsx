import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { Press } from "../ui/button";
import { Sheet } from "../ui/sheet";

const key = "oarweed-bench-ready";
const today = () => new Date().toDateString();

/** Whether the cautions were gone through today, on this device. */
export function useReady(): [boolean, () => void] {
  const [ready, setReady] = useState(() => localStorage.getItem(key) === today());
  return [
    ready,
    () => {
      localStorage.setItem(key, today());
      setReady(true);
    },
  ];
}

const checks = [
  "Everybody near the bench wears eye protection.",
  "The guard is closed over the whole specimen.",
  "Nobody stands in line with it, behind the cell or behind what draws it out.",
  "Begin slack, draw hand-tight, then slowly and evenly, so that both knots bed in alike.",
  "Whoever stops it has a hand on the stop, and nobody reaches in while it bears.",
];

/** What must be so before the first pull of a day. */
export function Before({ close, done }: { close: () => void; done: () => void }) {
  const [ticked, setTicked] = useState<number[]>([]);
  return (
    <Sheet
      open
      close={close}
      title="Before the first pull today"
      foot={
        <>
          <Press onClick={close}>Not yet</Press>
          <Press look="main" disabled={ticked.length < checks.length} onClick={done}>
            All is so
          </Press>
        </>
      }
    >
      {checks.map((text, i) => (
        <Flex as="label" key={text} gap="3" py="2" minH="44px" align="center">
          <input
            type="checkbox"
            checked={ticked.includes(i)}
            onChange={(e) => setTicked(e.target.checked ? [...ticked, i] : ticked.filter((x) => x !== i))}
            style={{ width: 24, height: 24, flex: "none" }}
          />
          {text}
        </Flex>
      ))}
      <Box color="quiet" mt="2">
        A line that parts goes through the air faster than anybody moves. The rules of your workshop come
        first.
      </Box>
    </Sheet>
  );
}
