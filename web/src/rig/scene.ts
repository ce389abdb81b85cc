import type { Answer, Schemas } from "../api/client";

/** The picture of a fitting, as its data names it; undefined: another line, or none. */
export type DrawnAs = Schemas["RigFittingKind"]["drawn_as"];

export type Scene = ReturnType<typeof layOut>;

/** Places everything, in pixels, at one scale for line and fitting. */
export function layOut(answer: Answer, drawnAs: DrawnAs, width: number, phone: boolean) {
  const d = answer.line.diameter_mm || 1;
  const fitting = answer.rig.chain[0]?.fitting;
  const size = fitting?.size_mm ?? answer.other?.diameter_mm ?? d;
  const solid = drawnAs === "post" || drawnAs === "bollard" || drawnAs === "rail";
  // Pixels per mm: the rope readable, the fitting in the picture.
  const px = Math.max(Math.min((phone ? 16 : 24) / d, (solid ? 110 : phone ? 28 : 40) / size), 5 / d);
  const w = d * px;
  const y = phone ? 72 : 80;
  const at = solid ? 26 + Math.min(size * px, 150) / 2 : 80;
  const reach = {
    ring: ringRadius(size * px),
    clew: size * px + 12,
    eye: size * px * 0.85,
    gap: 26,
    cleat: 52,
  }[drawnAs as string];
  const jointX = solid ? at + Math.min(size * px, 150) / 2 : fitting ? at + (reach ?? 0) : phone ? 90 : 170;
  const glassR = phone ? 66 : 92;
  return {
    height: phone ? 212 : 268,
    y,
    px,
    at,
    size: size * px,
    below: 188,
    joint: { x: jointX, r: Math.max(w * 0.95, 6) },
    rope: { x0: jointX, x1: width - 26, y, w },
    glass: { x: phone ? Math.min(jointX + 120, width - 84) : jointX + 190, y: phone ? 140 : 160, r: glassR },
  };
}

export const ringRadius = (bar: number) => bar * 0.7 + 20;
