// Runs the use cases compiled for the browser under Node and prints what they answered.
// Called with the folder of Go's wasm_exec.js, the compiled file, a packed catalogue and a
// rig document.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";

const [, , support, compiled, packed, rig] = process.argv;
createRequire(import.meta.url)(join(support, "wasm_exec.js"));
const go = new globalThis.Go();
const module = new WebAssembly.Module(readFileSync(compiled));
const began = performance.now();
go.run(await WebAssembly.instantiate(module, go.importObject));
const started = performance.now() - began;
const early = JSON.parse(globalThis.oarweed("knots"));
const loaded = globalThis.oarweedLoad(new Uint8Array(readFileSync(packed)));
const call = (...args) => globalThis.oarweed(...args);
call("choose", rig);
const times = [];
for (let n = 0; n < 200; n++) {
  const t = performance.now();
  call("choose", rig);
  times.push(performance.now() - t);
}
times.sort((a, b) => a - b);
process.stdout.write(
  JSON.stringify({
    choose: JSON.parse(call("choose", rig)),
    chain: JSON.parse(call("check-rig", rig)),
    knots: JSON.parse(call("knots")).length,
    knot: JSON.parse(call("knot", "", "bowline")).name,
    drawing: call("drawing", "", "bowline"),
    refused: JSON.parse(call("choose", rig.replace("polyester", "seaweed"))),
    unknown: JSON.parse(call("sail")),
    started,
    early,
    loaded,
    choice: times[100],
  }),
  () => process.exit(0), // the functions would stay for ever
);
