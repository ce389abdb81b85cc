import { chakra } from "@chakra-ui/react";
import { press } from "./recipes";

/** A button. Not a submit button unless it says so. With asChild it lends its look to a link. */
export const Press = chakra("button", press, { defaultProps: { type: "button" }, forwardAsChild: false });
