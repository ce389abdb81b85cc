import { Box, type BoxProps } from "@chakra-ui/react";
import { type DrawingOptions, useDrawing, useFaultDrawing } from "../api/hooks";

type Props = { id: string; name: string; drawn: boolean; options?: DrawingOptions } & BoxProps;

/** A knot drawn by the server. A knot without a drawing says so instead of showing another. */
export function Drawing({ id, name, drawn, options = {}, ...box }: Props) {
  const { data } = useDrawing(id, options, drawn);
  if (!drawn) {
    return (
      <Box
        {...box}
        overflow="hidden"
        display="flex"
        alignItems="center"
        justifyContent="center"
        color="quiet"
        fontSize="14px"
        textAlign="center"
        p="2"
      >
        No drawing of the {name.toLowerCase()} yet: follow the steps in words.
      </Box>
    );
  }
  return (
    <Box
      {...box}
      className="knot-drawing"
      data-knot={id}
      // The SVG comes from our own server and holds no text that a user typed.
      dangerouslySetInnerHTML={{ __html: data ?? "" }}
    />
  );
}

/** The drawing of a faulty form, its difference ringed. */
export function FaultDrawing({ id, look, ...box }: { id: string; look: Look } & BoxProps) {
  const { data } = useFaultDrawing(id, look);
  return <Box {...box} className="knot-drawing" dangerouslySetInnerHTML={{ __html: data ?? "" }} />;
}

export type Look = "laid" | "braid" | "mono";

/** The surface a line shows in a drawing. */
export function lookOf(construction: string | undefined): Look {
  if (construction === "laid") return "laid";
  return construction === "solid" ? "mono" : "braid";
}
