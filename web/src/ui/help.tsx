import { Box, Flex, Heading } from "@chakra-ui/react";
import { Link } from "react-router";
import { Press } from "./button";
import { Mark } from "./evidence";
import { keys } from "./keys";
import type { Light } from "./light";
import { type Prefs, setPrefs, usePrefs } from "./prefs";
import { Sheet } from "./sheet";

/** Preferences, the marks of evidence, and the keys. */
export function HelpSheet(p: {
  open: boolean;
  close: () => void;
  light: Light;
  setLight: (l: Light) => void;
}) {
  const { open, close, light, setLight } = p;
  const likes = usePrefs();
  return (
    <Sheet open={open} close={close} title="Help and preferences">
      <Heading as="h3" fontSize="lg">
        On this device
      </Heading>
      <One
        label="Light"
        list={{ day: "Day", sun: "Full sun", night: "Night" }}
        value={light}
        set={(v) => setLight(v as Light)}
      />
      <One
        label="Your hand"
        list={{ right: "Right", left: "Left" }}
        value={likes.hand}
        set={(hand) => setPrefs({ hand: hand as Prefs["hand"] })}
      />
      <One
        label="Rope"
        list={{ kn: "mm, kN", kgf: "mm, kgf", in: "in, lbf" }}
        value={likes.units}
        set={(units) => setPrefs({ units: units as Prefs["units"] })}
      />
      <One
        label="Fishing line"
        list={{ lb: "lb", kg: "kg" }}
        value={likes.tackle}
        set={(tackle) => setPrefs({ tackle: tackle as Prefs["tackle"] })}
      />
      <One
        label="Opens with"
        list={{ rig: "Rig", knots: "Knots", teach: "Teach", jobs: "Jobs", log: "Log" }}
        value={likes.opens}
        set={(opens) => setPrefs({ opens: opens as Prefs["opens"] })}
      />
      <One
        label="Text"
        list={{ usual: "Usual", large: "Large" }}
        value={likes.large ? "large" : "usual"}
        set={(v) => setPrefs({ large: v === "large" })}
      />
      <One
        label="Keys of one letter"
        list={{ on: "On", off: "Off" }}
        value={likes.letters ? "on" : "off"}
        set={(v) => setPrefs({ letters: v === "on" })}
      />
      <Heading as="h3" fontSize="lg" mt="4">
        Where a number comes from
      </Heading>
      {(
        [
          ["published", "named at the number"],
          ["computed", "worked out from what stands beside it"],
          ["trade", "common practice, no source"],
          ["memory", "recalled and unchecked: a starting point only"],
          ["yours", "you said so, or measured it"],
        ] as const
      ).map(([tag, says]) => (
        <Flex key={tag} gap="3" py="0.5">
          <Box minW="120px" fontWeight="700">
            <Mark tag={tag} />
          </Box>
          <Box>{says}</Box>
        </Flex>
      ))}
      <Box mt="1">
        Every formula, figure and source:{" "}
        <Link to="/method" className="link strong" onClick={close}>
          Method
        </Link>
      </Box>
      <Heading as="h3" fontSize="lg" mt="4">
        Keys
      </Heading>
      {Object.values(keys).map(({ shown, does }) => (
        <Flex key={shown} gap="4" py="1">
          <Box minW="110px" fontWeight="700">
            {shown}
          </Box>
          <Box>{does}</Box>
        </Flex>
      ))}
    </Sheet>
  );
}

function One(p: { label: string; list: Record<string, string>; value: string; set: (v: string) => void }) {
  return (
    <Flex align="center" gap="2" mt="2" role="group" aria-label={p.label} wrap="wrap">
      <Box minW="140px">{p.label}</Box>
      {Object.entries(p.list).map(([id, name]) => (
        <Press key={id} small aria-pressed={id === p.value} onClick={() => p.set(id)}>
          {name}
        </Press>
      ))}
    </Flex>
  );
}

/** Three sentences for whoever is here for the first time, and one touch to try. */
export function FirstVisit() {
  if (usePrefs().met) return null;
  return (
    <Flex
      bg="glassWash"
      px={{ base: "3", md: "6" }}
      py="2"
      gap="3"
      align="center"
      wrap="wrap"
      className="no-print"
      data-testid="first-visit"
    >
      <Box flex="1" minW="260px" fontSize="md">
        The sentence says what is tied to what: every underlined phrase can be changed. Below it stand the
        knots that will do, best first, and why. Marks like ◆ say where a number comes from.
      </Box>
      <Press
        small
        onClick={() => {
          setPrefs({ met: true });
          document.querySelector<HTMLElement>('[data-phrase="load"]')?.click();
        }}
      >
        Try: change the load
      </Press>
      <Press small look="bare" onClick={() => setPrefs({ met: true })}>
        Understood
      </Press>
    </Flex>
  );
}
