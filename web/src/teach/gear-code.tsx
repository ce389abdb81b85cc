import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import { api, unwrap } from "../api/client";
import { Trouble } from "../ui/notes";
import { Page } from "../ui/page";

/** A thing by the code on its label. */
export function GearCode() {
  const { code = "" } = useParams();
  const { data, error } = useQuery({
    queryKey: ["gear-code", code],
    queryFn: () => unwrap(api.GET("/api/v1/gear-codes/{code}", { params: { path: { code } } })),
    retry: false,
  });
  if (data) return <Navigate to={`/teach/quay?gear=${data.id}`} replace />;
  return <Page>{error ? <Trouble error={error} /> : <Box>Looking for {code}…</Box>}</Page>;
}
