import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { useCatalogue } from "../api/hooks";
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

/** What must be so before the first pull of a day. */
export function Before({ close, done }: { close: () => void; done: () => void }) {
  const [ticked, setTicked] = useState<number[]>([]);
  const card = useCatalogue().data?.procedures.find((p) => p.id === "bench-pull");
  const checks = card?.steps.map((s) => s.says) ?? [];
  return (
    <Sheet
      open
      close={close}
      title="Before the first pull today"
      foot={
        <>
          <Press onClick={close}>Not yet</Press>
          <Press look="main" disabled={!card || ticked.length < checks.length} onClick={done}>
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
        {card?.when}
      </Box>
    </Sheet>
  );
}
