import { Box, type BoxProps } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type DrawingOptions, q } from "../api/queries";

type Props = { id: string; name: string; drawn: boolean; options?: DrawingOptions } & BoxProps;

/** A knot drawn by the server. A knot without a drawing says so instead of showing another. */
export function Drawing({ id, name, drawn, options = {}, ...box }: Props) {
  const { data } = useQuery({ ...q.drawing(id, options), enabled: drawn });
  if (!drawn) {
    return (
      <Box
        {...box}
        overflow="hidden"
        display="flex"
        alignItems="center"
        justifyContent="center"
        color="quiet"
        fontSize="sm"
        textAlign="center"
        p="2"
      >
        No drawing of the {name.toLowerCase()} yet: follow the steps in words.
      </Box>
    );
  }
  return <Svg {...box} data-knot={id} text={data} />;
}

/** A knot as it looks drawn up. */
export function DrawnUp({ id, look, ...box }: { id: string; look: Look } & BoxProps) {
  const { data } = useQuery(q.snugFigure(id, { look }));
  return <Svg {...box} data-knot={id} text={data} />;
}

/** A knot drawn up as it lies on a level line of so many pixels: its figure at the line's own width, and its size. */
export function useOnLine(id: string | undefined, w: number, look: Look) {
  const { data } = useQuery({ ...q.snugFigure(id ?? "", { line: true, look }), enabled: Boolean(id) });
  const [, across, high] = (/viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(data ?? "") ?? []).map(Number);
  return id && data && across && high ? { text: data, w: across * w, h: high * w } : undefined;
}

/** How wide a knot's drawing is for its height; 1 while that is not known. */
export function useAspect(id: string, options: DrawingOptions): number {
  const { data } = useQuery(q.drawing(id, options));
  const [, w = 1, h = 1] = (/viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(data ?? "") ?? []).map(Number);
  return w / h;
}

/** A knot drawn along a level line: an upright drawing is laid over, a loop with its eye to the left, others with what they are tied to. */
export function Along({ loop, ...props }: Props & { loop: boolean }) {
  const { id, options = {}, drawn } = props;
  if (useAspect(id, options) > 0.83 || !drawn) return <Drawing {...props} w="100%" h="100%" />;
  return (
    <Box position="relative" w="100%" h="100%" css={{ containerType: "size" }}>
      <Drawing
        {...props}
        position="absolute"
        left="50%"
        top="50%"
        w="100cqh"
        h="100cqw"
        transform={`translate(-50%, -50%) rotate(${loop ? 90 : -90}deg)`}
      />
    </Box>
  );
}

/** The drawing of a faulty form, its difference ringed; bare, without the ring. */
export function FaultDrawing({
  id,
  look,
  view,
  left,
  bare,
  ...box
}: { id: string; look: Look; view?: DrawingOptions["view"]; left?: boolean; bare?: boolean } & BoxProps) {
  const { data } = useQuery(q.faultDrawing(id, { look, view, left, bare }));
  return <Svg {...box} text={data} />;
}

/** A drawing of our own server's: it holds no text that a user typed. The one place where markup is taken as it is. */
export function Svg({ text, ...box }: { text: string | undefined } & BoxProps) {
  // biome-ignore lint/security/noDangerouslySetInnerHtml: see above
  return <Box {...box} className="knot-drawing" dangerouslySetInnerHTML={{ __html: text ?? "" }} />;
}

export type Look = "laid" | "braid" | "mono";

/** The surface a line shows in a drawing. */
export function lookOf(construction: string | undefined): Look {
  if (construction === "laid") return "laid";
  return construction === "solid" ? "mono" : "braid";
}
