import type { Schemas } from "../api/client";

type Fault = Schemas["QuizFault"];

/** What is asked: a fault, which drawings are shown (true: the wrong one), and names to choose from. */
export type Asked = { fault: Fault; shown: boolean[]; wrong: boolean; names: string[] };

/** What was answered: a place touched on one of the drawings, a name, or neither: it is right. */
export type Given = { place?: number; at?: [number, number]; name?: string };

/** A number from 0 to 1 that is the same for the same seed and place. */
function chance(seed: number, place: number): number {
  let x = (seed * 2654435761 + place * 40503 + 12345) >>> 0;
  x ^= x >>> 15;
  x = Math.imul(x, 2246822519) >>> 0;
  x ^= x >>> 13;
  return (x >>> 0) / 4294967296;
}

/** The turns go through all faults before one comes again. */
export function ask(faults: Fault[], seed: number, turn: number, pair: boolean): Asked {
  const round = Math.floor(turn / faults.length);
  const order = faults
    .map((fault, i) => ({ fault, at: chance(seed + round, i) }))
    .sort((a, b) => a.at - b.at)
    .map((x) => x.fault);
  const fault = order[turn % faults.length] as Fault;
  const wrong = pair || chance(seed, 1000 + turn) < 0.65;
  const shown = pair ? (chance(seed, 2000 + turn) < 0.5 ? [true, false] : [false, true]) : [wrong];
  const others = [...new Set(order.filter((f) => f.name !== fault.name).map((f) => f.name))].slice(0, 2);
  const names = [fault.name, ...others]
    .map((name, i) => ({ name, at: chance(seed, 3000 + 10 * turn + i) }))
    .sort((a, b) => a.at - b.at)
    .map((x) => x.name);
  return { fault, shown, wrong, names };
}

/** How near the place a touch has to be, in radii of the ring. */
const near = 1.5;

export function judge({ fault, shown, wrong }: Asked, given: Given): { right: boolean; says: string } {
  if (given.name !== undefined) {
    if (!wrong) return { right: false, says: "It was right" };
    return given.name === fault.name
      ? { right: true, says: "That is it" }
      : { right: false, says: "Wrong it is, but not so" };
  }
  if (given.place === undefined || !given.at) {
    return wrong ? { right: false, says: "It was wrong" } : { right: true, says: "It is right" };
  }
  if (!shown[given.place]) return { right: false, says: wrong ? "That one is right" : "It was right" };
  const [x, y, r] = fault.at as [number?, number?, number?];
  if (x === undefined || y === undefined || r === undefined) return { right: true, says: "Found" };
  return Math.hypot(given.at[0] - x, given.at[1] - y) <= near * r
    ? { right: true, says: "Found" }
    : { right: false, says: "The right drawing, but it shows in the ring" };
}
