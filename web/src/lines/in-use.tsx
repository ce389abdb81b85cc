import { Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { Press } from "../ui/button";
import { lq } from "./queries";
import { UseSheet } from "./use-sheet";

/** What the log of use says of a knot, and a use of it for the log. */
export function InUse({ knot }: { knot: string }) {
  const [open, setOpen] = useState(false);
  const says = useQuery(lq.knotUse(knot)).data?.says;
  return (
    <>
      <Press onClick={() => setOpen(true)}>Log a use</Press>
      {says && (
        <Flex align="center" color="quiet" data-in-use="">
          <Link to={`/lines/use?knot=${knot}`} className="link">
            {says}
          </Link>
        </Flex>
      )}
      {open && <UseSheet knot={knot} close={() => setOpen(false)} />}
    </>
  );
}
