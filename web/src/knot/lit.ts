import { coloursOf, type Seen, type Strand, spun } from "./tube";

/** How many sides a tube has. */
const sides = 14;

/** The surface a rope shows: smooth, laid of three strands, or braided. */
const looks = { mono: 0, laid: 1, braid: 2 } as const;
export type RopeLook = keyof typeof looks;

const vertex = `
attribute vec3 at, normal;
attribute vec2 skin;
uniform vec2 scale, shift;
uniform float depth;
varying vec3 n, p;
varying vec2 s;
void main() {
  n = normal; p = at; s = skin;
  gl_Position = vec4(at.xy * scale + shift, -at.z * depth, 1.0);
}`;

// A key light from the upper left, a little from the sky, and dark toward the edge, as the
// drawings have it. What is nearer than the cut is gone, and the inside shows as a section.
const fragment = `
precision mediump float;
uniform vec3 edge, body, light, section;
uniform float near, look;
varying vec3 n, p;
varying vec2 s;
void main() {
  if (p.z > near) discard;
  if (!gl_FrontFacing) { if (near - p.z < 0.06) { gl_FragColor = vec4(edge, 1.0); return; } gl_FragColor = vec4(mix(section, vec3(1.0), 0.45), 1.0); return; }
  vec3 m = normalize(n);
  float lit = 0.8 + 0.3 * dot(m, normalize(vec3(-0.45, 0.65, 0.6)));
  vec3 c = body * lit;
  float line = 0.0;
  if (look > 1.5) line = max(smoothstep(0.86, 1.0, sin(4.0 * s.y + 5.5 * s.x)), smoothstep(0.86, 1.0, sin(-4.0 * s.y + 5.5 * s.x)));
  else if (look > 0.5) line = smoothstep(0.55, 1.0, sin(3.0 * s.y + 3.4 * s.x));
  c = mix(c, edge, 0.55 * line);
  c = mix(c, light, 0.75 * smoothstep(0.93, 1.0, dot(m, normalize(vec3(-0.35, 0.5, 0.8)))));
  c = mix(c, edge, smoothstep(0.68, 0.98, 1.0 - m.z));
  gl_FragColor = vec4(c, 1.0);
}`;

type Vec = [number, number, number];
const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (a: Vec): Vec => {
  const l = Math.hypot(...a) || 1;
  return [a[0] / l, a[1] / l, a[2] / l];
};

/** The skin of a tube round places: of each corner its place, its normal, and where it lies along and round the rope. */
export function skinOf(p: Float64Array, d: number, closed: boolean) {
  const n = p.length / 3;
  const rings = closed ? n + 1 : n;
  const at = (i: number): Vec => {
    const k = closed ? ((i % n) + n) % n : Math.min(Math.max(i, 0), n - 1);
    return [p[3 * k] ?? 0, p[3 * k + 1] ?? 0, p[3 * k + 2] ?? 0];
  };
  const corners = new Float32Array(rings * (sides + 1) * 8);
  let across: Vec = [0, 0, 0];
  let along = 0;
  for (let i = 0; i < rings; i++) {
    const [before, after] = [at(i - 1), at(i + 1)];
    const t = unit([after[0] - before[0], after[1] - before[1], after[2] - before[2]]);
    // Carried on from ring to ring, so that the skin does not twist by itself.
    const dot = across[0] * t[0] + across[1] * t[1] + across[2] * t[2];
    across =
      i === 0
        ? unit(cross(t, Math.abs(t[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))
        : unit([across[0] - dot * t[0], across[1] - dot * t[1], across[2] - dot * t[2]]);
    const up = cross(t, across);
    const here = at(i);
    if (i > 0) {
      const last = at(i - 1);
      along += Math.hypot(here[0] - last[0], here[1] - last[1], here[2] - last[2]);
    }
    for (let k = 0; k <= sides; k++) {
      const turn = (2 * Math.PI * k) / sides;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const o = (i * (sides + 1) + k) * 8;
      for (let a = 0; a < 3; a++) {
        const normal = c * (across[a] ?? 0) + s * (up[a] ?? 0);
        corners[o + a] = (here[a] ?? 0) + (d / 2) * normal;
        corners[o + 3 + a] = normal;
      }
      corners[o + 6] = along / d;
      corners[o + 7] = turn;
    }
  }
  const faces = new Uint16Array((rings - 1) * sides * 6);
  let f = 0;
  for (let i = 0; i + 1 < rings; i++) {
    for (let k = 0; k < sides; k++) {
      const a = i * (sides + 1) + k;
      const b = a + sides + 1;
      faces.set([a, a + 1, b, b, a + 1, b + 1], f);
      f += 6;
    }
  }
  return { corners, faces };
}

const hex = (c: string): Vec => {
  const x = c.length === 4 ? c.replace(/[0-9a-f]/gi, "$&$&") : c;
  return [1, 3, 5].map((i) => Number.parseInt(x.slice(i, i + 2), 16) / 255) as Vec;
};

/** Paints a knot as lit tubes; undefined where the browser has no WebGL. */
export function litPainter(canvas: HTMLCanvasElement) {
  const gl = canvas.getContext("webgl", { antialias: true, preserveDrawingBuffer: true });
  if (!gl) return undefined;
  const program = gl.createProgram();
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, fragment],
  ] as const) {
    const shader = gl.createShader(kind);
    if (!shader) return undefined;
    gl.shaderSource(shader, text);
    gl.compileShader(shader);
    gl.attachShader(program, shader);
  }
  gl.linkProgram(program);
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return undefined;
  // biome-ignore lint/correctness/useHookAtTopLevel: it is WebGL's, not a hook
  gl.useProgram(program);
  gl.enable(gl.DEPTH_TEST);
  gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
  gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, gl.createBuffer());
  for (const [name, size, offset] of [
    ["at", 3, 0],
    ["normal", 3, 12],
    ["skin", 2, 24],
  ] as const) {
    const place = gl.getAttribLocation(program, name);
    gl.enableVertexAttribArray(place);
    gl.vertexAttribPointer(place, size, gl.FLOAT, false, 32, offset);
  }
  const u = (name: string) => gl.getUniformLocation(program, name);
  const place = Object.fromEntries(
    ["scale", "shift", "depth", "near", "look", "edge", "body", "light", "section"].map((x) => [x, u(x)]),
  );
  return (strands: Strand[], seen: Seen, look: RopeLook) => {
    const paints = coloursOf(canvas);
    const all = spun(strands, seen);
    const { by, x, y, near, deep } = all.fit(canvas.width, canvas.height);
    gl.viewport(0, 0, canvas.width, canvas.height);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
    gl.uniform2f(place.scale ?? null, (2 * by) / canvas.width, (2 * by) / canvas.height);
    gl.uniform2f(place.shift ?? null, (-2 * by * x) / canvas.width, (-2 * by * y) / canvas.height);
    gl.uniform1f(place.depth ?? null, 1 / deep);
    gl.uniform1f(place.near ?? null, Math.min(near, 1e6));
    let rope = 0;
    for (const { s, p } of all.strands) {
      const tint = s.object ? paints.object : (paints.rope[rope++ % 2] ?? paints.object);
      const { corners, faces } = skinOf(p, s.d, Boolean(s.closed));
      gl.bufferData(gl.ARRAY_BUFFER, corners, gl.DYNAMIC_DRAW);
      gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, faces, gl.DYNAMIC_DRAW);
      gl.frontFace(seen.left ? gl.CW : gl.CCW);
      gl.uniform3fv(place.section ?? null, hex(tint.light));
      for (const c of ["edge", "body", "light"] as const) gl.uniform3fv(place[c] ?? null, hex(tint[c]));
      gl.uniform1f(place.look ?? null, s.object ? 0 : looks[look]);
      gl.drawElements(gl.TRIANGLES, faces.length, gl.UNSIGNED_SHORT, 0);
    }
  };
}
