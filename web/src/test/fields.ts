import table from "../../../cmd/oarweed/testdata/golden/fields.json";
import type { Catalogue } from "../api/client";

/** The table of fields as the core has it. */
export const fields = table as Catalogue["fields"];
