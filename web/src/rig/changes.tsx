import { Box, Heading } from "@chakra-ui/react";
import { lazy, Suspense, useState } from "react";
import type { Catalogue, Rig } from "../api/client";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { Outcome } from "./whole";

const ChoiceMap = lazy(() => import("./map").then((m) => ({ default: m.ChoiceMap })));

/** How sure the chosen knot is, and what would change the choice. */
export function Changes(props: {
  rig: Rig;
  knot: string;
  fishing: boolean;
  catalogue: Catalogue;
  change: (rig: Rig) => void;
}) {
  const { rig, knot, fishing, catalogue, change } = props;
  const changes = useLasting(q.changes(rig)).data;
  const chance = useLasting(q.chances(rig)).data?.[knot];
  const [map, setMap] = useState(false);
  return (
    <Box mt="3" pt="3" borderTop="1.5px dashed" borderColor="rule">
      {chance && <Outcome chance={chance} fishing={fishing} />}
      {changes && (
        <Box mt="3" data-testid="changes">
          <Heading as="h3" fontSize="lg">
            What would change this{" "}
            <Evidence
              tag="computed"
              source="every number turned eightfold up and down until another knot comes first, every condition turned once"
            />
          </Heading>
          {changes.changes.length === 0 && <Box>Nothing within eight times up or down.</Box>}
          {changes.changes.slice(0, 6).map((c) => (
            <Box key={c.says} py="0.5" fontSize="md">
              {c.says}
            </Box>
          ))}
          {changes.changes.length > 6 && (
            <details>
              <Box as="summary" minH="44px" py="2" cursor="pointer" color="quiet">
                {changes.changes.length - 6} more
              </Box>
              {changes.changes.slice(6).map((c) => (
                <Box key={c.says} py="0.5" fontSize="md">
                  {c.says}
                </Box>
              ))}
            </details>
          )}
          <Press mt="2" className="no-print" onClick={() => setMap(true)}>
            Which knot where
          </Press>
          {map && (
            <Suspense fallback={null}>
              <ChoiceMap
                open
                close={() => setMap(false)}
                rig={rig}
                inputs={changes.inputs}
                catalogue={catalogue}
                fishing={fishing}
                change={(next) => {
                  setMap(false);
                  change(next);
                }}
              />
            </Suspense>
          )}
        </Box>
      )}
    </Box>
  );
}
