import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { q } from "../api/queries";

/** Which line of the locker the rig's line is; what the locker knows of it counts. */
export function ThisOne({ code }: { code: string | undefined }) {
  const line = useQuery({ ...q.lines(), enabled: Boolean(code) }).data?.find((l) => l.code === code);
  if (!code || !line) return null;
  return (
    <Box fontSize="15px" data-this-one="" color={line.retired || (line.wear ?? 0) >= 3 ? "flare" : "quiet"}>
      It is the{" "}
      <Link to={`/lines/${code}`} className="link">
        {line.name}
      </Link>{" "}
      of the locker{line.retired || (line.wear ?? 0) >= 3 ? ": retired, not to be used" : ""}.
    </Box>
  );
}
