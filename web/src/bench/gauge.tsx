import { Box, Flex, Grid, Input } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { Press } from "../ui/button";
import { typedNumber } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

type Spot = [number, number];
type Photo = { url: string; spots: Spot[] };

/** What is touched in each photograph, in this order. */
const asks = [
  "Touch one end of the scale",
  "Touch the other end of the scale",
  "Touch where the end leaves the knot",
  "Touch the mark on the end",
];

/** Creep out of two photographs of the marked end, before the pull and after it. */
export function SlipGauge({ close, found }: { close: () => void; found: (mm: number) => void }) {
  const [photos, setPhotos] = useState<(Photo | undefined)[]>([undefined, undefined]);
  const [scale, setScale] = useState("50");
  const work = useMutation({
    mutationFn: () => {
      const gauge = (p: Photo | undefined) =>
        ({
          scale: [p?.spots[0], p?.spots[1]],
          scale_mm: typedNumber(scale),
          knot: p?.spots[2],
          mark: p?.spots[3],
        }) as Schemas["BenchGauge"];
      return unwrap(
        api.POST("/api/v1/bench/creep", { body: { before: gauge(photos[0]), after: gauge(photos[1]) } }),
      );
    },
    onSuccess: (x) => found(Math.max(0, Math.round(10 * x.mm) / 10)),
  });
  const set = (i: number, p: Photo | undefined) => setPhotos((now) => now.map((x, k) => (k === i ? p : x)));
  const whole = photos.every((p) => p?.spots.length === asks.length);
  return (
    <Sheet
      open
      wide
      firm
      close={close}
      title="How far the end crept"
      foot={
        <>
          <Press onClick={close}>Leave it</Press>
          <Press look="main" disabled={!whole || work.isPending} onClick={() => work.mutate()}>
            Work it out
          </Press>
        </>
      }
    >
      <Box mb="3" color="quiet">
        Both taken straight from above, with a ruler or anything of known length lying beside the knot.
      </Box>
      <Box maxW="260px">
        <Typed label="The scale is so long, mm" value={scale} set={setScale} />
      </Box>
      <Grid mt="3" gap="4" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        {["Before the pull", "After the pull"].map((name, i) => (
          <Touched key={name} name={name} photo={photos[i]} set={(p) => set(i, p)} />
        ))}
      </Grid>
      <Trouble error={work.error} />
    </Sheet>
  );
}

function Touched(props: { name: string; photo: Photo | undefined; set: (p: Photo | undefined) => void }) {
  const { name, photo, set } = props;
  const [size, setSize] = useState<Spot>([4, 3]);
  const touch = (e: React.MouseEvent<SVGSVGElement>) => {
    if (!photo || photo.spots.length >= asks.length) return;
    const r = e.currentTarget.getBoundingClientRect();
    const spot: Spot = [
      ((e.clientX - r.left) / r.width) * size[0],
      ((e.clientY - r.top) / r.height) * size[1],
    ];
    set({ ...photo, spots: [...photo.spots, spot] });
  };
  return (
    <Box>
      <Box fontWeight="700">{name}</Box>
      <Input
        type="file"
        accept="image/*"
        aria-label={`Photograph: ${name.toLowerCase()}`}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) set({ url: URL.createObjectURL(file), spots: [] });
        }}
      />
      {photo && (
        <>
          <Flex mt="1" minH="44px" align="center" gap="2">
            <Box role="status">{asks[photo.spots.length] ?? "All is touched."}</Box>
            {photo.spots.length > 0 && (
              <Press small look="bare" onClick={() => set({ ...photo, spots: photo.spots.slice(0, -1) })}>
                Back
              </Press>
            )}
          </Flex>
          <Box position="relative">
            <img
              src={photo.url}
              alt={name}
              style={{ width: "100%", display: "block" }}
              onLoad={(e) => setSize([e.currentTarget.naturalWidth, e.currentTarget.naturalHeight])}
            />
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: places in a photograph are touched */}
            <svg
              role="application"
              aria-label={asks[photo.spots.length] ?? name}
              viewBox={`0 0 ${size[0]} ${size[1]}`}
              style={{ position: "absolute", inset: 0, width: "100%", height: "100%", cursor: "crosshair" }}
              onClick={touch}
            >
              {photo.spots.map(([x, y], i) => (
                <circle
                  // biome-ignore lint/suspicious/noArrayIndexKey: spots in their order
                  key={i}
                  cx={x}
                  cy={y}
                  r={size[0] / 60}
                  fill="none"
                  stroke={i < 2 ? "var(--glass)" : "var(--flare)"}
                  strokeWidth={size[0] / 160}
                />
              ))}
            </svg>
          </Box>
        </>
      )}
    </Box>
  );
}
