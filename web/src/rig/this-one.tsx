import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { lq } from "../lines/queries";

/** Which line of the locker the rig's line is; what the locker knows of it counts. */
export function ThisOne({ code }: { code: string | undefined }) {
  const line = useQuery({ ...lq.locker(), enabled: Boolean(code) }).data?.find((l) => l.code === code);
  if (!code || !line) return null;
  const gone = Boolean(line.retired || line.state.retire);
  return (
    <Box fontSize="15px" data-this-one="" color={gone ? "flare" : "quiet"}>
      It is the{" "}
      <Link to={`/lines/${code}`} className="link">
        {line.name}
      </Link>{" "}
      of the locker{gone ? ": retired, not to be used" : ""}.
    </Box>
  );
}
